import { plain } from './words';
import { putUnder } from '../extract/put-under';

/** A matter that extracts of many fields have in common. */
export interface Topic {
  /** What a set about it is called. */
  name: string;
  /** The larger matter that it is part of. */
  within?: string;
  /** Beginnings of words, without accents; `=` before a whole word, `~` before what may stand anywhere within one. */
  words: string;
}

/**
 * What words are about, in English, German, French and Spanish, with the commonest abbreviations of archives. General
 * knowledge, not of any one extract: it makes variables meet whose labels share no word, as "Wage" and "Monthly rent" do.
 */
export const TOPICS: Readonly<Record<string, Topic>> = {
  place: {
    name: 'Place',
    words: `=post location origin destination birthplace grid easting northing =gps =ward precinct suburb =nuts =fips =island =valley =hall =yard continent =world where located region =reg province provinc provincia =prov district distrito =dist county counties =country =state =states city =town village villag municip commune comuna =dep departement departamento parish postcode postal =zip =zipcode
      =plz postleitzahl bundesland =bland =land landkreis kreis gemeinde =ort wohnort stadtteil address adress direccion =street street =urban =rural urbano =milieu neighbourhood neighborhood quartier barrio =borough borough
      latitud longitud =lat =lon =lng =long altitud =alt elevation =elev coordinat =site location =locality station =area =zone =territory`,
  },
  person: {
    name: 'Person',
    words: `=sister =sisters =man =men =woman =women =male =female =born widow =name =surname =forename =firstname =lastname =geboren =nacido personal =sex =sexe =sexo gender geschlecht =age =ages =alter =edad =agegrp =agegroup birth =dob =yob =byear =bmonth geburt naissance =nais nacimiento marital marst =marit matrimon familienstand =civil =sitmat national =natlty staatsangehor
      ethnic =race =ethn citizen immigra migra =mtongue muttersprache`,
  },
  household: {
    name: 'Household',
    words: `=lives =living lodger inhabitant =cohabit =famsize household =hh =hhsize =tamhog haushalt menage hogar =head relationship =relhead =children =child =kids =kinder =enfants =hijos =adults =persons =personen =personas =members`,
  },
  family: {
    name: 'Family',
    words: `=son =sons daughter grandpar =grandchildren =baby =babies =uncle =aunt kinship adopt famil =mother =father =parent =parents =mutter =vater =eltern =mere =pere =parents =madre =padre =padres partner spouse married marriage wedd divorc =sibling =siblings =brother =sister pregnan contracep =mum =dad`,
  },
  education: {
    name: 'Schooling',
    words: `educ school =educ =edu schooling =yrsch =evschool degree diplom qualificat =training =trained vocational universit college literacy =literate =reads schul schulabschluss ausbildung bildung formation scolar escol escuela estudio
      student pupil =teacher teachers classroom =grade =grades =lesson lessons homework`,
  },
  tests: {
    name: 'Test scores',
    within: 'education',
    words: `=score =scores =test =tests =exam =exams =marks math mathemat =reading =science =spelling =note =notes punkt puntaje`,
  },
  work: {
    name: 'Work',
    words: `=staff apprentice =crew hired workforce payroll =trade guild promot vacanc =duty =shifts =work =works =worked =working =job =jobs employ unemploy occupat =occ =occup industr =ind contract =wrk profession career labour labor workplace =boss supervis =union retire pensioner =shift =wages arbeit erwerb beruf
      stellung emploi =activite =csp travail metier chomage empleo trabaj ocupac oficio desempleo =isco =isic =nace apprentic selfemploy =hours =tenurejob =anc =overtime colleague`,
  },
  money: {
    name: 'Money',
    words: `=tariff =ledger =balance =bill =bills =dues =due =fine =fines charge =charges =worth deposit invest =grant =grants award claim compensat stipend =fund =funds financ =pence =cents =usd =eur =gbp =chf =paid =free lease subscription =value donation income =inc =incband =wage =wages salar earning =earn =earns revenue revenus =revenu =revmen =money =cash =pay =pays paid =payment =payments price =prices cost costs =fee =fees fare =fares =tip =tips =toll =tax =taxes =rent spend spent expens expend
      savings =saving =debt =debts =loan =loans credit mortgage benefit benefits pension =bank budget amount =amt profit sales =sales =cheap turnover discount currency =crowns =euro =euros =dollar =dollars einkommen nettoeinkommen gehalt =lohn lohne miete kosten
      preis ausgabe schulden sparen ~einkommen loyer depens =dep salaire prix cout impot ingreso gasto =gast sueldo salario precio costo deuda credito =monto subsid venta =ventas wealth asset =assets insur =billing =invoice =refund =donat`,
  },
  payment: {
    name: 'Payment',
    within: 'money',
    words: `payment =pay =paid =paytype =card =cash invoice =billing =refund =instal`,
  },
  housing: {
    name: 'Housing',
    words: `=flat =flats apartment storey =stairs garden =balcony =garage =built landlady dwelling housing =house =home =homes =room =rooms bedroom bathroom =roof =floor =wall =walls toilet =latrine drinking sanitation landlord =tenure tenant =owned =heating heat boiler cooking kitchen electricity =fuel lighting
      wohnung wohn ~wohn zimmer mieter eigentum heizung logement =typlog piece =pieces chauff vivienda =cuarto cuartos techo piso insulat window`,
  },
  belongings: {
    name: 'Things owned',
    words: `=has =owned furniture sewing =clock =own =owns =owned possess appliance =asset =radio television =tv fridge refrigerat bicycle bike =car =cars motorbike computer =phone telephone washing =oven =stove =fridge`,
  },
  health: {
    name: 'Health',
    words: `=hunger vaccin =vacc allerg =wound infect epidem =virus hearing eyesight =vision =teeth dentist dental =test =tested health =ill illness =sick sickness disease doctor =nurse hospital clinic medic patient =pain symptom chronic disab injur accident =surg surgery surgical operation diagnos =dx =icd comorbid admission admitted discharg readmit therap treatment =treat
      =drug =drugs dose =dosage vaccin =fever cough diarrh gesund krank arzt schmerz sante malad medecin hopital salud enferm medico dolor depress anxi sleep =mood stress wellbeing =bmi =died =death =dead mortal =ward`,
  },
  body: {
    name: 'Body measures',
    within: 'health',
    words: `=weight =kg height =weight =bmi waist =hip =hips body =mass circumference korpergrosse korpergewicht ~grosse taille =poids talla =peso skinfold =stature`,
  },
  pressure: {
    name: 'Blood pressure and pulse',
    within: 'health',
    words: `systol diastol =sbp =dbp blood pressure pulse heart =heartrate =bp =ecg tension`,
  },
  laboratory: {
    name: 'Laboratory',
    within: 'health',
    words: `haemoglob hemoglob =hb =hgb =wbc =rbc =plt platelet creatin =crea glucos =gluc cholest =chol =hdl =ldl triglyc serum plasma albumin bilirub sodium potassium ferritin =crp insulin urine =lab =assay leukocyt lymphocyt =alt =ast`,
  },
  treatment: {
    name: 'Treatment',
    within: 'health',
    words: `treatment =treat =arm =dose dosage =drug =drugs medication surgery =surg operation therap placebo statin blocker inhibitor antibiot anticoag vaccin`,
  },
  diagnoses: {
    name: 'Diagnoses',
    within: 'health',
    words: `diagnos =dx =icd comorbid =com diabet hypertens asthma cancer tumour tumor stroke infarct fibrillat =copd chronic kidney =disease`,
  },
  habits: {
    name: 'Habits',
    within: 'health',
    words: `smok =smk cigar tobacco tabac =tabak rauch =cigs alcohol =alc drink drinking =beer =wine exercis =exerc diet fume fuma bebe`,
  },
  food: {
    name: 'Food',
    words: `=flour =loaf =loaves bread =cake =cakes bakery =soup =grain restaurant =cook cooked recipe =lunch =lunches =kitchen canteen sweet =tea =coffee food =meal =meals =eat =eats =eaten eating diet nutrition vegetab fruit =meat =fish =bread =milk =rice =egg =eggs =hunger hungry breakfast =lunch dinner ernahrung essen aliment comida alimento nourriture cereal calor protein sugar`,
  },
  politics: {
    name: 'Politics',
    words: `politic =vote =voted =votes voter voting election elector =party =parties =council parliament government democra =left =petition demonstrat candidate minister =policy =policies wahl partei landtag =links politisch vot =parti gouvernement gobierno partido elecci`,
  },
  trust: { name: 'Trust', words: `trust =confidence vertrauen confiance confianza` },
  opinions: {
    name: 'Opinions',
    words: `agree opinion attitude statement satisf importan worr =worried accord acuerdo zustimm meinung zufrieden approve justif prefer =likely value`,
  },
  religion: {
    name: 'Religion',
    words: `relig =god church pray denominat service =services worship mosque konfession kirche eglise iglesia faith`,
  },
  media: {
    name: 'Media',
    words: `=media =medias newspaper =news television =tv =radio internet online =website website journal zeitung fernseh prensa periodico =press social =app =click =clicks =page =pages =session =browser =device`,
  },
  leisure: {
    name: 'Leisure',
    words: `=stay =tourist festival =kite excursion hotel leisure sport =hobby hobbies =club =clubs music film =films =book =books reading garden =friends freizeit loisir ocio holiday holidays =theatre museum volunteer =play =game =games`,
  },
  environment: {
    name: 'Environment',
    words: `noise litter =conservation environ climate =nature recycl pollut =waste rubbish energy umwelt ecolog emission =co2 renewable throwing =thrown`,
  },
  travel: {
    name: 'Travel',
    words: `=stop =stops =line =lines =tram =trams =seat =seats =board boarding boarded alight headway =dwell =pax =dir =direction =platform =ticket =tickets =ferry travel transport =trip =trips =bus =train =trains commut =way =drive =driving driver walking =flight =flights airport airline =pickup =dropoff distance =distkm =km kilomet =mile =miles speed =route journey departure arrival verkehr reise =passenger passengers`,
  },
  vehicle: {
    name: 'Vehicles',
    words: `=tyre =plate licence =fleet mechanic =gear vehicle =car =cars engine =motor battery cylinder horsepower =mpg =fahrzeug vehiculo vehicule truck =lorry =make =model mileage`,
  },
  time: {
    name: 'Dates',
    words: `joined joining opened =closed closing founded arrival expiry =hour =clock =moment =sched schedul =began deadline =old =since =recent elapsed date =dt =dat =day =month =year =week =hour =time =times =when start =started =end =ended =since =until timestamp =created =updated =due datum zeit =tag monat =jahr fecha hora season =quarter =deadline =begin =began`,
  },
  sample: {
    name: 'Weights and sample',
    words: `=wt =wgt =hhwt =perswt =pwt =hwt =wtstu =wtsch weighting stratum strata =strat strate =estrato psu cluster =grappe =primary sampling sample expansion =factor grossing replicat =repwt =jack =poids =peso ponderation ponderacion =gew gewichtung haushaltsgewicht personengewicht hochrechn grossing
      =segment conglomerado stichprobe =schicht`,
  },
  fieldwork: {
    name: 'Interview',
    words: `=asked =observer =recorder =clerk =surveyor interview =int =intdate =intnr =intlang interviewer =intv enumerat enqueteur =enq =datenq =durenq enquete encuest entrevist =visit visita =result =outcome =mode =consent duration =duree dauer =respondent survey =round =wave contact refus =proxy supervisor =questionnaire =form =remark =remarks
      =version release archive =study =edition editing =entry`,
  },
  checking: { name: 'Quality control', words: `=qc quality control =checked =valid plausib` },
  markers: {
    name: 'Markers of filled-in values',
    words: `imput =imp =flag =flags marker allocat =edited estimated filled =interpolated`,
  },
  safety: {
    name: 'Crime and safety',
    words: `crime =safe safety victim theft stolen burgl =police violence assault =fear kriminal delit robo`,
  },
  farm: {
    name: 'Farming',
    words: `=soil =hay =barn orchard allotment =flock =herd =beehive =dairy =feed farm =crop =crops harvest yield =land =plot =plots =acre =acres hectare =ha livestock cattle =cow =cows =sheep =goat =goats =pig =pigs hens poultry irrigat fertil seed =seeds plough maize wheat =field =fields soil cultiv rendimiento superficie =sup riego vaca oveja gallina cerdo finca
      tierra siembra abono semilla ackerbau landwirt agricol recolte betail =animal animals ernte`,
  },
  animals: {
    name: 'Animals',
    within: 'farm',
    words: `breed =breeds =pet =pets =dog =dogs =cat =cats =puppy =litter =vet =fleas =fur =tail livestock cattle =cow =cows =sheep =goat =goats =pig =pigs hens poultry =animal animals vaca oveja gallina cerdo betail vieh =horse horses =bird birds`,
  },
  goods: {
    name: 'Products',
    words: `product =item =sku brand categor subcategor =quantity =qty =order =orders supplier =stock warehouse inventory =unit =units =package size_`,
  },
  customers: {
    name: 'Customers',
    words: `customer client buyer =member membership subscriber =user =users segment loyalty =email =rider kunde =cliente`,
  },
  staff: {
    name: 'Staff',
    words: `=staff employee =agent =manager =seller salesperson =team =crew personal`,
  },
  ratings: {
    name: 'Ratings',
    words: `=content liked =likes quality =recommend =pleased rating =rated =stars =review =reviews score =feedback complaint`,
  },
  weather: {
    name: 'Weather',
    words: `=gust =mist =fog =hail thermometer barometer weather rain =rainfall precip =temp temperat wind =humid humidity cloud =snow =sun sunshine pressure =storm =frost =degrees meteo =air`,
  },
  water: {
    name: 'Water',
    words: `=tide =flood =drain =sewer =sediment =basin =bank water =river =lake =stream =flow depth turbid =turb nitrate =no =nh ammon phosph oxygen conduct =cond =ph =do salin acid dissolved =mgl chloride =well`,
  },
  wildlife: {
    name: 'Species and catch',
    words: `=forest =trunk canopy =leaf =leaves =bark =bee =bees =hive =hives =swarm =beetle moss lichen ring =egg species =fish =trout =perch =eel =pike =catch caught =plant plants =tree =trees =insect insects habitat nest =wing =bill =beak flipper`,
  },
  technology: {
    name: 'Phone and internet',
    words: `internet =phone mobile computer =online =email broadband =wifi smartphone`,
  },
  durations: {
    name: 'Durations',
    within: 'time',
    words: `=min =mins =minute =minutes =sec =secs =second =seconds =delay delayed duration =late lateness wait waiting =elapsed =hrs`,
  },
  size: {
    name: 'Size and weight',
    words: `height width length depth breadth diameter thickness =area volume =cm =mm weight =mass =kg =size =dimension =sqm =m`,
  },
  energy: {
    name: 'Energy',
    words: `energy =kwh =kw power =oil =coal =wood electric =gas =solar heating insulation turbine =oven =stove`,
  },
  business: {
    name: 'Firm',
    words: `=firm =firms company enterprise business =owner =owners founded =branch establishment headquarter unternehmen entreprise empresa`,
  },
  remarks: {
    name: 'Remarks',
    words: `remark comment =note =notes =memo =description =gripe annoyed bemerkung remarque observacion`,
  },
  status: {
    name: 'Status and outcome',
    words: `status =state outcome =result =results ended decision =reason condition =final completed cancelled =success`,
  },
  culture: {
    name: 'Culture',
    words: `=sing =sings =sung singing =song =songs choir rehears concert =voice =voices =solo =solos instrument =art =artist museum exhibit painting =frame theatre =film orchestra =hymn =hymns ballad gallery =object`,
  },
  justice: {
    name: 'Justice',
    words: `=court =courts judge plaintiff defendant appeal hearing settlement offence offense sentence prison lawyer counsel =law legal =trial witness =fine =arrest gericht tribunal juez`,
  },
  publications: {
    name: 'Publications',
    words: `author =title =titles publish =pages =isbn =genre shelf =edition =book =books library loan =loans reader =volume =journal`,
  },
  guests: {
    name: 'Stay',
    words: `guest =stay =stays =night =nights lodging hotel tourist visitor =guests accommodation =arrival booking =bed =beds`,
  },
  soil: {
    name: 'Soil and ground',
    words: `=soil =sand =clay =silt humus =slope =ground =rock gravel peat =plot =boden =sol =suelo =core =horizon texture`,
  },
  ships: {
    name: 'Ships',
    words: `=ship =ships vessel harbour harbor berth cargo tonnage draught =boat =boats =port =ports =crew anchor mooring =deck`,
  },
  emergency: {
    name: 'Emergencies',
    words: `=fire rescue callout alarm ambulance emergency =siren casualt injured =brigade dispatch incident`,
  },
  sport: {
    name: 'Sport',
    words: `=match =matches =goal =goals =league =player =players =team =teams =race training tournament =coach =season =win =wins =lost`,
  },
  equipment: {
    name: 'Equipment',
    words: `machine device sensor firmware =serial voltage signal =mhz =hz =tool =tools equipment instrument =chip maintenance repair =robe =robes`,
  },
};

export type TopicName = string;
type Match = readonly [topic: TopicName, weight: number];
const WHOLE = new Map<string, Match[]>();
const BEGINNINGS = new Map<string, Match[]>();
const WITHIN: (readonly [part: string, topic: TopicName])[] = [];
const push = (map: Map<string, Match[]>, word: string, match: Match): void => void putUnder(map, word, match);
for (const [topic, { words }] of Object.entries(TOPICS))
  for (const word of words.split(/\s+/).filter(Boolean)) {
    if (word.startsWith('=')) push(WHOLE, word.slice(1), [topic, 1]);
    else if (word.startsWith('~')) WITHIN.push([word.slice(1), topic]);
    else push(BEGINNINGS, word, [topic, 1]);
  }
const LEAST_BEGINNING = 3;

const found = new Map<string, readonly Match[]>();
const MOST_FOUND = 20_000;

/** What a word is about. @param word as it stands in a text */
export function topicsOfWord(word: string): readonly Match[] {
  const bare = plain(word);
  const known = found.get(bare);
  if (known) return known;
  const matches: Match[] = [...(WHOLE.get(bare) ?? [])];
  if (matches.length === 0)
    for (let length = bare.length; length >= LEAST_BEGINNING; length--) {
      const begun = BEGINNINGS.get(bare.slice(0, length));
      if (!begun) continue;
      matches.push(...begun);
      break;
    }
  // The last part of a compound says what it is: "Monatseinkommen".
  for (const [part, topic] of WITHIN)
    if (bare.length > part.length && bare.includes(part) && !matches.some(([one]) => one === topic))
      matches.push([topic, 1]);
  if (found.size >= MOST_FOUND) found.clear();
  found.set(bare, matches);
  return matches;
}

/** A topic and the larger ones that it is part of, the nearest first. */
export function upwards(topic: TopicName): TopicName[] {
  const up: TopicName[] = [];
  for (let at: TopicName | undefined = topic; at !== undefined; at = TOPICS[at]?.within) up.push(at);
  return up;
}

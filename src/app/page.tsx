import { Workplace } from '../ui/Workplace';

export default function Page() {
  return <Workplace />;
}

import { serveHelper } from '../threads/serve-helper';

serveHelper();

import '../no-evaluation';
import { expose } from 'comlink';
import { chainService } from './chain-service';

expose(chainService);

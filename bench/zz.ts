import { browse } from '../scripts/browse';
import { firstVisits } from '../faults/browser';
import { told } from '../faults/report';
void browse(4793, async (browser) => { told([await firstVisits(browser, 'http://127.0.0.1:4793/', 200)]); });

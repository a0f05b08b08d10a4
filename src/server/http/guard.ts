/** Which requests are answered at all: of which hosts, from where, with which addresses. */
import { oddIn } from '../../core/form/plain-json';

export interface Fault {
  status: 400 | 403 | 405 | 421;
  says: string;
}

/** Names under which the app is reached besides this machine's own: `TAVRO_HOSTS`, separated by commas. */
function allowedHosts(): string[] {
  return ['127.0.0.1', 'localhost', '[::1]', ...(process.env.TAVRO_HOSTS ?? '').split(',').map((host) => host.trim().toLowerCase()).filter(Boolean)];
}

const withoutPort = (host: string) => host.toLowerCase().replace(/:\d+$/, '');

/** What is wrong with an address: percent signs that encode nothing, or characters that nothing behind it can keep. */
export function addressFault(url: string): Fault | null {
  const { pathname, search } = new URL(url);
  try {
    const odd = oddIn([decodeURIComponent(pathname), decodeURIComponent(search.replace(/\+/g, ' '))]);
    return odd === null ? null : { status: 400, says: `The address ${odd}.` };
  } catch {
    return { status: 400, says: 'The address cannot be read: a percent sign in it encodes nothing.' };
  }
}

const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Why a request is refused for where it comes from; null when it is not. Browsers say it in Sec-Fetch-Site (Fetch
 * Metadata) and Origin; a request that changes something has to say it in one of them, so other clients set Origin.
 */
export function originFault(method: string, pathname: string, headers: Headers): Fault | null {
  const host = headers.get('host') ?? '';
  if (!allowedHosts().includes(withoutPort(host))) return { status: 421, says: `This server does not answer for the host "${host.slice(0, 100)}". Allow it with TAVRO_HOSTS.` };
  const site = headers.get('sec-fetch-site');
  const origin = headers.get('origin');
  const elsewhere: Fault = { status: 403, says: 'This request comes from another site, so it is not answered.' };
  const isApi = pathname.startsWith('/api/');
  if (!isApi && !READING.has(method)) return { status: 405, says: 'Pages are only read.' };
  if (!READING.has(method) && site === null && origin === null) return { status: 403, says: 'A request that changes something has to say where it comes from, in an Origin header.' };
  if (origin !== null && !READING.has(method) && originHost(origin) !== host.toLowerCase()) return elsewhere;
  if (site !== null && (isApi || !READING.has(method)) && site !== 'same-origin' && !(site === 'none' && READING.has(method))) return elsewhere;
  return null;
}

function originHost(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}

/** Which requests are answered at all: of which hosts, from where, with which addresses. Pages ask it in src/proxy.ts, routes in `answer`. */
import { oddIn } from '../../core/form/plain-json';
import { environment } from '../database/environment';

export interface RequestError {
  status: 400 | 403 | 405 | 421;
  says: string;
}

/** Names under which the app is reached besides this machine's own: `TAVRO_HOSTS`, separated by commas. */
function allowedHosts(): string[] {
  return [
    '127.0.0.1',
    'localhost',
    '[::1]',
    ...environment('TAVRO_HOSTS')
      .split(',')
      .map((host) => host.trim().toLowerCase())
      .filter(Boolean),
  ];
}

const withoutPort = (host: string) => host.toLowerCase().replace(/:\d+$/, '');

/** What is wrong with an address: percent signs that encode nothing, or characters that nothing behind it can keep. */
function addressError(url: string): RequestError | null {
  const { pathname, search } = new URL(url);
  try {
    const odd = oddIn([
      decodeURIComponent(pathname),
      decodeURIComponent(search.replace(/\+/g, ' ')),
    ]);
    return odd === null ? null : { status: 400, says: `The address ${odd}.` };
  } catch {
    return {
      status: 400,
      says: 'The address cannot be read: a percent sign in it encodes nothing.',
    };
  }
}

function hostFault(headers: Headers): RequestError | null {
  const host = headers.get('host') ?? '';
  return allowedHosts().includes(withoutPort(host))
    ? null
    : {
        status: 421,
        says: `This server does not answer for the host "${host.slice(0, 100)}". Allow it with TAVRO_HOSTS.`,
      };
}

const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Why a request for a page is refused; null when it is not. */
export function pageError({ url, method, headers }: Request): RequestError | null {
  return (
    addressError(url) ??
    hostFault(headers) ??
    (READING.has(method) ? null : { status: 405, says: 'Pages are only read.' })
  );
}

/**
 * Why a request to the API is refused; null when it is not. Browsers say where it comes from in Sec-Fetch-Site (Fetch
 * Metadata) and Origin; a request that changes something has to say it in one of them, so other clients set Origin.
 */
export function apiError({ url, method, headers }: Request): RequestError | null {
  return addressError(url) ?? hostFault(headers) ?? originFault(method, headers);
}

function originFault(method: string, headers: Headers): RequestError | null {
  const [site, origin] = [headers.get('sec-fetch-site'), headers.get('origin')];
  const reads = READING.has(method);
  const elsewhere: RequestError = {
    status: 403,
    says: 'This request comes from another site, so it is not answered.',
  };
  if (!reads && site === null && origin === null)
    return {
      status: 403,
      says: 'A request that changes something has to say where it comes from, in an Origin header.',
    };
  if (!reads && origin !== null && originHost(origin) !== headers.get('host')?.toLowerCase())
    return elsewhere;
  if (site !== null && site !== 'same-origin' && !(site === 'none' && reads)) return elsewhere;
  return null;
}

function originHost(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}

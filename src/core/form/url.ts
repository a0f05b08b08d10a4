/**
 * Whether a text is a valid absolute URL for an HTML URL field: whether the parser of the WHATWG URL standard accepts
 * it without a base. The session cannot ask the platform (its machine has no `URL`), so the failures of that parser
 * are stated here. International host names are accepted by their characters and not mapped (UTS 46 is left out).
 * Source: https://url.spec.whatwg.org/#concept-basic-url-parser and #host-parsing.
 */
const SPECIAL: Record<string, true> = { http: true, https: true, ws: true, wss: true, ftp: true };
// "forbidden host code point": NULL, TAB, LF, CR, space, # / : < > ? @ [ \ ] ^ |
const FORBIDDEN_HOST = /[\0\t\n\r #/:<>?@[\\\]^|]/;
// "forbidden domain code point" adds C0 controls, % and DELETE.
// eslint-disable-next-line no-control-regex
const FORBIDDEN_DOMAIN = /[\0-\x20"#%/:<>?@[\\\]^`{|}\x7f]/;

export function isAbsoluteUrl(text: string): boolean {
  // The parser strips leading and trailing C0 controls and spaces, and removes tabs and newlines anywhere.
  // eslint-disable-next-line no-control-regex
  const input = text.replace(/^[\0-\x20]+|[\0-\x20]+$/g, '').replace(/[\t\n\r]/g, '');
  const scheme = /^([a-zA-Z][a-zA-Z0-9+.-]*):/.exec(input);
  if (scheme === null) return false;
  const name = scheme[1]!.toLowerCase();
  const rest = input.slice(scheme[0].length);
  if (name === 'file') {
    const match = /^[/\\]{2}([^/\\?#]*)/.exec(rest);
    if (match === null || match[1] === '' || /^[a-zA-Z][:|]$/.test(match[1]!)) return true;
    return isDomain(match[1]!);
  }
  if (SPECIAL[name]) {
    const authority = /^[/\\]*([^/\\?#]*)/.exec(rest)![1]!;
    return isAuthority(authority, isDomain, true);
  }
  const authority = /^\/\/([^/?#]*)/.exec(rest);
  return authority === null || isAuthority(authority[1]!, isOpaqueHost, false);
}

function isAuthority(
  authority: string,
  isHost: (host: string) => boolean,
  hostNeeded: boolean,
): boolean {
  const at = authority.lastIndexOf('@');
  const hostAndPort = authority.slice(at + 1);
  const match = /^(\[[^\]]*\]|[^:]*)(?::(.*))?$/s.exec(hostAndPort);
  if (match === null) return false;
  const [, host = '', port] = match;
  if (host === '') return !hostNeeded && at < 0 && port === undefined;
  if (port !== undefined && port !== '' && !(/^\d+$/.test(port) && Number(port) <= 65535))
    return false;
  return host.startsWith('[') ? isIPv6(host.slice(1, -1)) : isHost(host);
}

function isOpaqueHost(host: string): boolean {
  return !FORBIDDEN_HOST.test(host);
}

function isDomain(host: string): boolean {
  if (host.startsWith('[')) return isIPv6(host.slice(1, -1));
  let domain: string;
  try {
    domain = decodeURIComponent(host);
  } catch {
    return false;
  }
  domain = domain.replace(/[\u3002\uff0e\uff61]/g, '.').replace(/\u00ad/g, '');
  if (domain === '' || FORBIDDEN_DOMAIN.test(domain)) return false;
  const labels = domain.split('.');
  if (labels.at(-1) === '' && labels.length > 1) labels.pop();
  const last = labels.at(-1)!;
  const endsInNumber = /^\d+$/.test(last) || /^0[xX][0-9a-fA-F]*$/.test(last);
  return !endsInNumber || isIPv4(labels);
}

function isIPv4(parts: string[]): boolean {
  if (parts.length > 4) return false;
  const numbers = parts.map(ipv4Number);
  if (numbers.some((n) => Number.isNaN(n))) return false;
  return (
    numbers.slice(0, -1).every((n) => n <= 255) && numbers.at(-1)! < 256 ** (5 - numbers.length)
  );
}

function ipv4Number(part: string): number {
  if (part === '') return NaN;
  if (/^0[xX]/.test(part))
    return /^0[xX][0-9a-fA-F]*$/.test(part) ? parseInt(part.slice(2) || '0', 16) : NaN;
  if (part.length > 1 && part.startsWith('0'))
    return /^[0-7]+$/.test(part) ? parseInt(part, 8) : NaN;
  return /^\d+$/.test(part) ? Number(part) : NaN;
}

function isIPv6(address: string): boolean {
  const halves = address.split('::');
  if (halves.length > 2) return false;
  const groups = halves.flatMap((half) => (half === '' ? [] : half.split(':')));
  let count = 0;
  for (const [i, group] of groups.entries()) {
    if (group.includes('.')) {
      if (
        i !== groups.length - 1 ||
        !/^(?:(?:25[0-5]|2[0-4]\d|1\d\d|[1-9]?\d)(?:\.(?!$)|$)){4}$/.test(group)
      )
        return false;
      count += 2;
    } else if (/^[0-9a-fA-F]{1,4}$/.test(group)) count += 1;
    else return false;
  }
  return halves.length === 2 ? count <= 7 : count === 8;
}

/**
 * Words, rows of keys and figures that passwords are commonly made of. A password is refused when nothing is left of it
 * once they, and figures and signs around them, are taken away.
 */
const COMMON = [
  ...['password', 'passwort', 'passwd', 'kennwort', 'geheim', 'secret', 'letmein', 'welcome'],
  ...[
    'willkommen',
    'changeme',
    'default',
    'admin',
    'administrator',
    'root',
    'guest',
    'user',
    'test',
  ],
  ...['login', 'iloveyou', 'sunshine', 'princess', 'football', 'baseball', 'basketball', 'monkey'],
  ...['dragon', 'master', 'shadow', 'superman', 'batman', 'trustno', 'whatever', 'starwars'],
  ...[
    'hello',
    'hallo',
    'servus',
    'freedom',
    'computer',
    'internet',
    'michael',
    'jennifer',
    'jordan',
  ],
  ...['qwertyuiop', 'qwertzuiop', 'asdfghjkl', 'zxcvbnm', 'yxcvbnm', 'qwerty', 'qwertz', 'azerty'],
  ...['asdfgh', 'qazwsxedc', 'qazwsx', 'abcdefghijklmnopqrstuvwxyz', 'abcdefghij', 'abcdef', 'abc'],
  ...['summer', 'winter', 'spring', 'autumn', 'sommer', 'herbst', 'fruehling', 'monday', 'january'],
  ...['laboratory', 'labor', 'lab', 'vinemeasure', 'vine', 'measure', 'titration', 'titrant'],
  ...['my', 'the', 'is', 'mein', 'das', 'ist', 'love', 'god', 'new', 'old', 'pass', 'word'],
].toSorted((a, b) => b.length - a.length);

/** Letters that are written as figures and signs. */
const LEET: Readonly<Record<string, string>> = {
  ...{ '0': 'o', '1': 'l', '3': 'e', '4': 'a', '5': 's', '7': 't', '@': 'a', $: 's', '!': 'i' },
};

/** Whether a password is one of those that are tried first. */
export function isCommonPassword(password: string): boolean {
  const plain = password.toLowerCase();
  const unLeet = Array.from(plain, (sign) => LEET[sign] ?? sign).join('');
  const isOneSign = new Set(plain).size <= 2;
  return (
    isOneSign || [plain, unLeet].some((text) => isMadeOfCommon(text.replaceAll(/[^a-z]/g, '')))
  );
}

function isMadeOfCommon(letters: string): boolean {
  return COMMON.reduce((left, word) => left.replaceAll(word, ''), letters).length <= 1;
}

/** Invented names of many origins; combined in a fixed order, so that the demo company is the same every time. */
const FIRST =
  'Farida Ilse Tomasz Amara Joaquim Nadia Ruaridh Petra Sorin Hanne Obinna Leila Mateus Signe Yusuf Greta Dai Ines Kofi Maren Anselm Priya Björn Oluchi Tadeo Saoirse Emre Lotte Wen Zofia Casimir Nkechi Åsa Rashid Bronagh Milos Thandi Edda Hiro Paloma Gwen Idris Vesna Callum Noor Stellan Mirela Ansa Torben Ruth'.split(
    ' ',
  );
const LAST =
  'Okonjo Brandvik Wren Lindqvist Peel Hollis Osei Aldous Vael Moreau Oduya Sandoval Achterberg Fairweather Nakamori Halloran Drăgan Westergaard Mbeki Quill Ferreira Tanaka-Holt Ivarsson Stavrou Penhallow Radić Adeyemi Kessler Lomax Väinö Castellan Burgin Eklund Haddad Morrow Szabo Trelawn Ngata Oakley Rask'.split(
    ' ',
  );

/** The n-th invented name; the first 2000 are all different. */
export function inventedName(n: number): string {
  return `${FIRST[n % FIRST.length]} ${LAST[(n + Math.floor(n / FIRST.length) * 7) % LAST.length]}`;
}

/** Lower-case ASCII of a name, for mail addresses. */
export function slugOf(name: string): string {
  return name
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^a-z]+/g, '.');
}

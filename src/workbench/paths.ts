/** Where each kind of object is opened. */
const PATHS: Record<string, (id: string) => string> = {
  extension: (id) => `/extensions/${id}`,
  person: (id) => `/people/${id}`,
  team: (id) => `/teams/${id}`,
  number: (id) => `/numbers/${id}`,
  inboundRoute: (id) => `/inbound/${id}`,
  mailbox: (id) => `/mailboxes/${id}`,
  rung: (id) => `/outbound/rule/${id}`,
  ladder: (id) => `/outbound?ladder=${id}`,
  trunk: (id) => `/trunks/${id}`,
  class: (id) => `/classes/${id}`,
  site: (id) => `/sites/${id}`,
  numberAddition: (id) => `/numbers/additions/${id}`,
  organisation: () => '/settings',
};

/** The page of an object; null for kinds without one. */
export function pathOf(kind: string, id: string): string | null {
  return PATHS[kind]?.(id) ?? null;
}

/** The trace page for a question. */
export function tracePath(from: string, dial: string, at = 'now'): string {
  return `/trace?${new URLSearchParams({ from, dial, at })}`;
}

/**
 * Where a page finds the picture of an entry, a vault or a kind, by its id; the address changes with the picture, so
 * that it may be kept.
 */
export function pictureAddress(id: string, pictureId: string): string;
export function pictureAddress(id: string, pictureId: string | null): string | null;
export function pictureAddress(id: string, pictureId: string | null): string | null {
  return pictureId === null ? null : `/api/picture/${id}?v=${pictureId.slice(-12)}`;
}

/** Where a page finds the picture of an entry; the address changes with the picture, so that it may be kept. */
export const pictureAddress = (entryId: string, pictureId: string | null): string | null =>
  pictureId === null ? null : `/api/picture/${entryId}?v=${pictureId.slice(-12)}`;

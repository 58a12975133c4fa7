/** Largest file of a picture, bytes. */
export const PICTURE_LIMIT = 64 * 1024 * 1024;

/** So many bytes from the beginning tell what a picture is. */
export const PICTURE_HEAD = 16;

/** How the pictures begin that phones write and browsers do not show. Source: ISO 14496-12, the brand after `ftyp`. */
const HEIC = /^....ftyp(heic|heix|hevc|heim|heis|mif1|msf1)/s;

export const isHeic = (head: Uint8Array): boolean => HEIC.test(String.fromCharCode(...head.subarray(0, PICTURE_HEAD)));

/** What is said of them, wherever one is brought. */
export const HEIC_SAID =
  'That is an HEIC picture, which browsers do not show: set the phone to JPEG, or share it as one.';

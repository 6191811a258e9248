/** A point on the Earth, in degrees: latitude -90 to 90, longitude -180 to 180. */
export interface GeoPoint {
  latitude: number;
  longitude: number;
}

/** The mean radius of the Earth (R1 of the Geodetic Reference System 1980, Moritz 2000), in km. */
const EARTH_KM = 6371.0088;

/**
 * The great-circle distance in km by the haversine formula (R. W. Sinnott, "Virtues of the Haversine", Sky
 * and Telescope 68, 1984). The Earth is taken as a sphere, which is off by half a per cent at most.
 */
export function distanceKm(a: GeoPoint, b: GeoPoint): number {
  const radians = (degrees: number) => (degrees * Math.PI) / 180;
  const halfSine = (degrees: number) => Math.sin(radians(degrees) / 2) ** 2;
  const h =
    halfSine(b.latitude - a.latitude) +
    Math.cos(radians(a.latitude)) * Math.cos(radians(b.latitude)) * halfSine(b.longitude - a.longitude);
  return 2 * EARTH_KM * Math.asin(Math.min(1, Math.sqrt(h)));
}

/**
 * Reads "47.61, -122.33" (ISO 6709 in decimal degrees, north and east positive); null for anything that is no
 * point.
 */
export function parsePoint(text: string): GeoPoint | null {
  const found = /^([+-]?\d{1,2}(?:\.\d+)?)(?:\s*[,;]\s*|\s+)([+-]?\d{1,3}(?:\.\d+)?)$/.exec(text.trim());
  if (!found) return null;
  const [latitude, longitude] = [Number(found[1]), Number(found[2])];
  return Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180 ? { latitude, longitude } : null;
}

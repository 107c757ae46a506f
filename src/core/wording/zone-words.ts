/** The city of an IANA zone, by whose clock times are meant: "Europe/London" is London's, "America/Argentina/Salta" Salta's. */
export function zoneCity(zone: string): string {
  return (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');
}

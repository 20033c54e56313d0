/** Stands where a library asks for an icon set that we do not ship. */
export default function NoIcon() {
  return null;
}

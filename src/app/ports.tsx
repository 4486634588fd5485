/** An address; what is shown there is one of the kept screens. */
export default function Ports() {
  return null;
}

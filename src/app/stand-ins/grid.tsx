/** An address; what is shown there is a stand-in. */
export default function GridStandIn() {
  return null;
}

/** An address; what is shown there is a stand-in. */
export default function HostStandIn() {
  return null;
}

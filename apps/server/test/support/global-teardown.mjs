/** Removes what the set-up started. */
export default function tearDown() {
  globalThis.removeTestCluster();
}

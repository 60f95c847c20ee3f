/** Says that the line to the server is not encrypted. */
export const OpenLine = () => (
  <p className="nf-muted nf-small m-0">
    The line to the server is not encrypted: whoever shares the network can read along.
  </p>
);

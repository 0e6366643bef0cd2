/** Its own, or the build looks upward and takes ours. */
export default { poweredByHeader: false };

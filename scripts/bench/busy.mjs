export const busy = async () => ({});

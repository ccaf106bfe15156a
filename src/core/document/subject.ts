/** What links, evidence and the log know things by: the kind and the id. This is the one maker of them. */
export const streamSubject = (streamId: string): string => `stream:${streamId}`;
export const cameraSubject = (cameraId: string): string => `camera:${cameraId}`;
export const tapSubject = (tapId: string): string => `tap:${tapId}`;
export const destinationSubject = (destinationId: string): string => `destination:${destinationId}`;
export const networkSubject = (networkId: string): string => `network:${networkId}`;
export const gearSubject = (gearId: string): string => `gear:${gearId}`;
/** What an access point is heard as, by the thing at the other end. */
export const airSubject = (apSubject: string, endSubject: string): string => `air:${apSubject}:${endSubject}`;
export const linkSubject = (linkId: string): string => `link:${linkId}`;

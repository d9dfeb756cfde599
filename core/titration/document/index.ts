export { certificateDocument, certificateLink } from './certificateDocument';

export { certificateDocument } from './certificateDocument';

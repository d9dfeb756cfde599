export { massForSolutionG } from './weigh';

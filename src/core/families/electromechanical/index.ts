export { member } from './member';
export { electromechanicalProfile, type ElectromechanicalProfile } from './profile';
export { typical } from './typical';

export { member } from './member';
export { batterySupplyProfile, type BatterySupplyProfile } from './profile';
export { typical } from './typical';

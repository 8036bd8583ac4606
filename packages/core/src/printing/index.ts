export { runsOf, type Run } from './runs.ts';
export { PRINT_FORMATS, PRINT_INFO, writePrinted, type Printed, type PrintFormat } from './write.ts';

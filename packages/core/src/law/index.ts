export { courtOfSeries, isCourt, isReportSeries, yearBeforeNumber, yearOf, type YearForm } from './series.ts';
export { readReports, reportsToText, type Report } from './reports.ts';

import workerpool from 'workerpool';
import { readWorkbook } from '../files/workbook/read-workbook.js';
import { writeWorkbook } from '../files/workbook/write-workbook.js';

workerpool.worker({ readWorkbook, writeWorkbook });

import { advance, performChunk } from '@verdict/core';
import workerpool from 'workerpool';

workerpool.worker({ advance, chunk: performChunk });

/** Id of the sample project, the same in every database so that links to it can be shared. */
export const SAMPLE_ID = 'saltmarsh';

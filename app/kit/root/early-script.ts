/**
 * Stands in the document before everything else: remembers what a hand does at controls that the scripts have not taken over yet. Those that they have
 * bear their mark.
 */
export const EARLY_SCRIPT = `window.early=new Map();for(const kind of["input","change"])document.addEventListener(kind,e=>{const c=e.target;window.early&&c.name!==undefined&&!Object.keys(c).some(k=>k.startsWith("__reactProps"))&&window.early.set(c,{control:c,value:c.value,checked:c.checked})},true)`;

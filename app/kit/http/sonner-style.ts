/** sonner 2.0.8 injects one <style> without a nonce: exactly that text (and the empty element it starts as) is allowed. */
export const SONNER_STYLES = [
  "'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU='",
  "'sha256-StEaX+se6YS7pqjzrzMIA0KaX9zF/8zAhvQXZAe5epY='",
] as const;

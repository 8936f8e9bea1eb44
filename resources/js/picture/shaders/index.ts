export * from './ground';
export * from './paint';
export * from './sky';
export * from './water';

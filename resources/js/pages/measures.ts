/** Frame rates and picture sizes that people choose from. */

export const RATES = [
    { value: '24/1', name: '24 frames a second' },
    { value: '25/1', name: '25 frames a second' },
    { value: '30/1', name: '30 frames a second' },
    { value: '48/1', name: '48 frames a second' },
    { value: '24000/1001', name: '23.976 frames a second' },
    { value: '30000/1001', name: '29.97 frames a second' },
];

export const SIZES = [
    { value: '1280x720', name: '1280 x 720, wide (16:9)' },
    { value: '1920x1080', name: '1920 x 1080, wide (16:9)' },
    { value: '1998x1080', name: '1998 x 1080, flat cinema (1.85:1)' },
    { value: '2048x858', name: '2048 x 858, scope (2.39:1)' },
    { value: '1440x1080', name: '1440 x 1080 (4:3)' },
    { value: '1080x1080', name: '1080 x 1080, square' },
    { value: '1080x1920', name: '1080 x 1920, upright (9:16)' },
];

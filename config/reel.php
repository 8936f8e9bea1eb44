<?php

declare(strict_types=1);

return [
    // Upload limit of one file, bytes.
    'upload_bytes' => (int) env('REEL_UPLOAD_BYTES', 200 * 1024 * 1024),
    'commands_per_call' => 500,
    // Whether pictures of new kit assets are drawn in the background by themselves.
    'draw_pictures' => (bool) env('REEL_DRAW_PICTURES', true),
    'chrome' => env('REEL_CHROME', '/usr/bin/chromium'),
    'chromedriver' => env('REEL_CHROMEDRIVER', '/usr/bin/chromedriver'),
    'assimp' => env('REEL_ASSIMP', '/usr/bin/assimp'),
    'ffprobe' => env('REEL_FFPROBE', '/usr/bin/ffprobe'),
    'ffmpeg' => env('REEL_FFMPEG', '/usr/bin/ffmpeg'),
    // The web server sends files of the store itself, once it is told which (bin/lib/parts.sh sets it).
    'accel' => (bool) env('REEL_ACCEL', false),
    // The socket of the process that settles scenes and remembers (reel:warm); none: each call settles for itself.
    'warm' => env('REEL_RUN') === null ? null : env('REEL_RUN').'/warm.sock',
    'bwrap' => env('REEL_BWRAP', '/usr/bin/bwrap'),
    // False: programs that read people's files do not run at all.
    'box' => (bool) env('REEL_BOX', true),
    // Where the render worker's browser reaches the application.
    'internal_url' => env('REEL_INTERNAL_URL', env('APP_URL', 'http://127.0.0.1:8080')),
    'demo' => ['email' => 'demo@crisp-reel.example', 'password' => 'half-past-the-tide', 'name' => 'Ines Marlow'],
];

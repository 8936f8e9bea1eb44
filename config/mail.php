<?php

declare(strict_types=1);

return [
    // "log" writes mails into storage/logs/mail.log, for whoever runs the installation to pass on; "smtp" sends them.
    'default' => env('MAIL_MAILER', 'log'),
    'mailers' => [
        'smtp' => [
            'transport' => 'smtp', 'scheme' => env('MAIL_SCHEME'), 'host' => env('MAIL_HOST', '127.0.0.1'),
            'port' => env('MAIL_PORT', 25), 'username' => env('MAIL_USERNAME'), 'password' => env('MAIL_PASSWORD'), 'timeout' => 20,
        ],
        'log' => ['transport' => 'log', 'channel' => 'mail'],
        'array' => ['transport' => 'array'],
    ],
    'from' => ['address' => env('MAIL_FROM_ADDRESS', 'crisp-reel@localhost.example'), 'name' => 'Crisp Reel'],
];

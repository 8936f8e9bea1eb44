<?php

declare(strict_types=1);

// Router of PHP's built-in server: static files as they are, everything else through Laravel.
$path = __DIR__.'/../../public'.parse_url($_SERVER['REQUEST_URI'], PHP_URL_PATH);

if (is_file($path)) {
    return false;
}

require __DIR__.'/../../public/index.php';

<?php

declare(strict_types=1);

namespace App\Intake;

use App\Exceptions\UserError;

/** How large a file may be that somebody brings. */
final class SizeLimit
{
    public static function bytes(): int
    {
        $limit = config('reel.upload_bytes');

        return is_int($limit) ? $limit : 0;
    }

    public static function megabytes(): int
    {
        return intdiv(self::bytes(), 1 << 20);
    }

    public static function refuse(int $bytes, string $name = 'The file'): void
    {
        if ($bytes > self::bytes()) {
            $says = sprintf('%s has %d MB; at most %d MB are taken.', $name, intdiv($bytes, 1 << 20), self::megabytes());
            throw new UserError('intake.too-large', $says, 'Simplify it or split it up.');
        }
    }
}

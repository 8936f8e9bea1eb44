<?php

declare(strict_types=1);

namespace App\Doors;

use App\Exceptions\UserError;

/** What a password must be: long enough, none that everybody tries first, and no longer than is looked at. */
final class GoodPassword
{
    public const LEAST = 10;

    /** Bcrypt reads no further (OWASP Password Storage: bytes, not letters). */
    public const MOST_BYTES = 72;

    /** @var array<string, true>|null */
    private static ?array $common = null;

    /** @param  list<string>  $near  words that it must not be made of: name and address */
    public static function required(mixed $given, array $near = []): string
    {
        if (! is_string($given) || ! mb_check_encoding($given, 'UTF-8') || mb_strlen($given) < self::LEAST) {
            throw new UserError(
                'password.short',
                'The password needs at least '.self::LEAST.' letters, figures or signs.',
                'Three or four words in a row are good and easy to keep in mind.',
            );
        }
        if (strlen($given) > self::MOST_BYTES) {
            throw new UserError(
                'password.long',
                sprintf(
                    'The password has %d bytes; only %d are looked at, so the rest would not protect you.',
                    strlen($given),
                    self::MOST_BYTES,
                ),
                'Take a shorter one; letters beyond a to z count two bytes or more.',
            );
        }
        $plain = mb_strtolower(trim($given));
        // With the usual endings off, and the usual signs for letters read as these.
        $bare = strtr((string) preg_replace('/^[\W\d_]+|[\W\d_]+$/u', '', $plain), [
            '0' => 'o', '1' => 'l', '3' => 'e', '4' => 'a', '5' => 's', '7' => 't', '@' => 'a', '$' => 's', '!' => 'i',
        ]);
        $near = array_filter(
            array_map(static fn (string $w): string => mb_strtolower(trim($w)), $near),
            static fn (string $w): bool => mb_strlen($w) >= 4,
        );
        if (
            isset(self::common()[$plain]) || isset(self::common()[$bare]) || count(array_unique(mb_str_split($plain))) < 4
                || in_array($plain, $near, true)
        ) {
            throw new UserError(
                'password.common',
                'This password is among those that are tried first.',
                'Take another; three or four words in a row are good.',
            );
        }

        return $given;
    }

    /** @return array<string, true> */
    private static function common(): array
    {
        return self::$common ??= array_fill_keys(
            array_filter(
                array_map(trim(...), file(resource_path('doors/common-passwords.txt')) ?: []),
                static fn (string $w): bool => $w !== '' && $w[0] !== '#',
            ),
            true,
        );
    }
}

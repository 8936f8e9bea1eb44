<?php

declare(strict_types=1);

namespace App\Doors;

use App\Exceptions\UserError;
use Normalizer;

/**
 * A mail address as it is kept: one form for one person. Compatibility forms, invisible characters and capitals are folded; what
 * then is not plain ASCII is refused, so that no look-alike reaches anybody's account.
 */
final class Address
{
    public static function of(mixed $given): ?string
    {
        if (! is_string($given) || strlen($given) > 1000 || ! mb_check_encoding($given, 'UTF-8')) {
            return null;
        }
        $text = Normalizer::normalize($given, Normalizer::FORM_KC);
        $text = mb_strtolower(trim((string) preg_replace('/[\p{Cf}\p{Cc}\p{Z}]+/u', '', is_string($text) ? $text : '')));
        $at = strrpos($text, '@');
        if ($at === false) {
            return null;
        }
        $host = idn_to_ascii(substr($text, $at + 1), IDNA_DEFAULT, INTL_IDNA_VARIANT_UTS46);
        $text = substr($text, 0, $at).'@'.(is_string($host) ? $host : '');

        return strlen($text) <= 190 && filter_var($text, FILTER_VALIDATE_EMAIL) !== false ? $text : null;
    }

    public static function required(mixed $given): string
    {
        return self::of($given) ?? throw new UserError(
            'account.address',
            'This is no mail address that is taken.',
            'Write it as name@place.example, in plain letters, at most 190 of them.',
        );
    }
}

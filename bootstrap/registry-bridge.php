<?php

declare(strict_types=1);

/*
 * Bridge for four indirect requirements that the package registry copy does not hold
 * (see "replace" in composer.json and docs/decisions.md). Each piece steps aside
 * as soon as the real package is there.
 */

namespace Symfony\Component\Clock {
    if (! interface_exists(ClockInterface::class)) {
        interface ClockInterface extends \Psr\Clock\ClockInterface
        {
            public function sleep(float|int $seconds): void;

            public function withTimeZone(\DateTimeZone|string $timezone): static;
        }
    }

    if (! class_exists(NativeClock::class)) {
        final class NativeClock implements ClockInterface
        {
            private \DateTimeZone $timezone;

            public function __construct(\DateTimeZone|string|null $timezone = null)
            {
                $this->timezone = is_string($timezone) || $timezone === null
                    ? new \DateTimeZone($timezone ?? date_default_timezone_get())
                    : $timezone;
            }

            public function now(): \DateTimeImmutable
            {
                return new \DateTimeImmutable('now', $this->timezone);
            }

            public function sleep(float|int $seconds): void
            {
                usleep((int) round($seconds * 1_000_000));
            }

            public function withTimeZone(\DateTimeZone|string $timezone): static
            {
                return new self($timezone);
            }
        }
    }
}

namespace {
    if (! function_exists('array_first')) {
        /** @param  array<array-key, mixed>  $array */
        function array_first(array $array): mixed
        {
            return $array === [] ? null : $array[array_key_first($array)];
        }
    }

    if (! function_exists('array_last')) {
        /** @param  array<array-key, mixed>  $array */
        function array_last(array $array): mixed
        {
            return $array === [] ? null : $array[array_key_last($array)];
        }
    }

    if (! function_exists('get_error_handler')) {
        function get_error_handler(): ?callable
        {
            $handler = set_error_handler(static fn (): bool => false);
            restore_error_handler();

            return $handler;
        }
    }

    if (! function_exists('get_exception_handler')) {
        function get_exception_handler(): ?callable
        {
            $handler = set_exception_handler(null);
            restore_exception_handler();

            return $handler;
        }
    }
}

<?php

declare(strict_types=1);

namespace App\Speech;

use FFI;
use FFI\CData;

/** A shared library of the system, called by the names of its functions. */
final readonly class Library
{
    private function __construct(private FFI $ffi)
    {
    }

    /** @throws NoVoice when it is not installed */
    public static function open(string $header, string $file, string $otherwise): self
    {
        try {
            return new self(FFI::cdef($header, $file));
        } catch (FFI\Exception $e) {
            throw new NoVoice($otherwise, 0, $e);
        }
    }

    public function call(string $name, mixed ...$arguments): mixed
    {
        return $this->ffi->{$name}(...$arguments);
    }

    /** What a pointer points at, as a type of the header. */
    public function cast(string $type, mixed $pointer): CData
    {
        $out = $this->ffi->cast($type, $pointer);

        return $out instanceof CData ? $out : throw new NoVoice('The voice gave nothing back.');
    }

    public function bytes(mixed $pointer, int $length): string
    {
        return FFI::string($this->cast('char*', $pointer), $length);
    }

    public static function field(CData $struct, string $name): mixed
    {
        return $struct->{$name};
    }
}

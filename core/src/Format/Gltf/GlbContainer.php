<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

/** The GLB envelope of glTF 2.0 (section 4): header, JSON chunk, binary chunk, each padded to 4 bytes. */
final class GlbContainer
{
    private const MAGIC = 0x46546C67;

    private const JSON = 0x4E4F534A;

    private const BIN = 0x004E4942;

    /** @param  array<array-key, mixed>  $json */
    public static function pack(array $json, string $binary): string
    {
        $text = json_encode($json, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION);
        $text .= str_repeat(' ', (4 - strlen($text) % 4) % 4);
        $binary .= str_repeat("\0", (4 - strlen($binary) % 4) % 4);
        $chunks = pack('VV', strlen($text), self::JSON).$text;
        if ($binary !== '') {
            $chunks .= pack('VV', strlen($binary), self::BIN).$binary;
        }

        return pack('VVV', self::MAGIC, 2, 12 + strlen($chunks)).$chunks;
    }

    /**
     * GLB or plain JSON glTF.
     *
     * @return array{array<string, mixed>, string} JSON and binary chunk
     *
     * @throws UnableToReadGltf
     */
    public static function unpack(string $bytes): array
    {
        if (str_starts_with(ltrim(substr($bytes, 0, 64), "\xEF\xBB\xBF \t\r\n"), '{')) {
            return [self::json(ltrim($bytes, "\xEF\xBB\xBF")), ''];
        }
        if (strlen($bytes) < 4 || substr($bytes, 0, 4) !== 'glTF') {
            throw UnableToReadGltf::wrongMagic(substr($bytes, 0, 4));
        }
        if (strlen($bytes) < 20) {
            throw UnableToReadGltf::truncated(20, strlen($bytes));
        }
        /** @var array{version: int, length: int} $head */
        $head = unpack('Vmagic/Vversion/Vlength', $bytes);
        if ($head['version'] !== 2) {
            throw UnableToReadGltf::unsupportedVersion((string) $head['version']);
        }
        if ($head['length'] > strlen($bytes)) {
            throw UnableToReadGltf::truncated($head['length'], strlen($bytes));
        }

        return self::chunks($bytes, $head['length']);
    }

    /** @return array{array<string, mixed>, string} */
    private static function chunks(string $bytes, int $length): array
    {
        $json = null;
        $binary = '';
        for ($at = 12; $at + 8 <= $length; $at += 8 + $size) {
            /** @var array{size: int, type: int} $chunk */
            $chunk = unpack('Vsize/Vtype', $bytes, $at);
            $size = $chunk['size'];
            if ($at + 8 + $size > $length) {
                throw UnableToReadGltf::truncated($at + 8 + $size, $length);
            }
            if ($chunk['type'] === self::JSON && $json === null) {
                $json = self::json(substr($bytes, $at + 8, $size));
            } elseif ($chunk['type'] === self::BIN && $binary === '') {
                $binary = substr($bytes, $at + 8, $size);
            }
        }

        return [$json ?? throw UnableToReadGltf::malformed('file', 'there is no JSON chunk'), $binary];
    }

    /** @return array<string, mixed> */
    private static function json(string $text): array
    {
        try {
            $json = json_decode($text, true, 128, JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw UnableToReadGltf::brokenJson(strtolower($e->getMessage()));
        }
        if (! is_array($json)) {
            throw UnableToReadGltf::brokenJson('it is not an object');
        }

        /** @var array<string, mixed> $json */
        return $json;
    }
}

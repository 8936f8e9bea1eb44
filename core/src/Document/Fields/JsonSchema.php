<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Mix;
use CrispReel\Core\Document\Moods;
use CrispReel\Core\Document\Wind;

/** The published schema of scene files, from the fields of their rows (JSON Schema 2020-12). */
final class JsonSchema
{
    /** @return array<string, mixed> of the whole document */
    public static function document(): array
    {
        $kinds = ['assets' => AssetRef::class] + Document::ROWS;
        $rows = array_map(static fn (string $class): array => ['type' => 'array', 'items' => self::ref($class)], $kinds);

        return [
            '$schema' => 'https://json-schema.org/draft/2020-12/schema',
            '$id' => 'urn:crisp-reel:scene:'.Document::VERSION,
            'title' => 'Crisp Reel scene, version '.Document::VERSION,
            'type' => 'object',
            'required' => ['format', 'version', 'rate', 'width', 'height', 'mood', 'assets', 'items', 'beats', 'links', 'cameras', 'shots'],
            'properties' => [
                'format' => ['const' => Document::FORMAT], 'version' => ['const' => Document::VERSION],
                'name' => ['type' => 'string', 'maxLength' => 200],
                'rate' => ['type' => 'array', 'items' => ['type' => 'integer', 'minimum' => 1], 'minItems' => 2, 'maxItems' => 2],
                'width' => ['type' => 'integer', 'minimum' => 16, 'maximum' => 8192],
                'height' => ['type' => 'integer', 'minimum' => 16, 'maximum' => 8192],
                'mood' => ['enum' => Moods::names()],
                'wind' => self::ref(Wind::class), 'mix' => self::ref(Mix::class),
            ] + $rows,
            '$defs' => [
                'id' => ['type' => 'string', 'pattern' => '^[A-Za-z0-9_.-]{1,64}$'],
                'vector' => self::numbers(3), 'quaternion' => self::numbers(4, ['minimum' => -1.01, 'maximum' => 1.01]),
            ] + self::definitions([...array_values($kinds), Wind::class, Mix::class]),
        ];
    }

    /**
     * @param  array<string, float>  $range
     * @return array<string, mixed>
     */
    private static function numbers(int $count, array $range = ['minimum' => -1e6, 'maximum' => 1e6]): array
    {
        return ['type' => 'array', 'items' => ['type' => 'number'] + $range, 'minItems' => $count, 'maxItems' => $count];
    }

    /**
     * @param  class-string  $class
     * @return array{'$ref': string}
     */
    public static function ref(string $class): array
    {
        return ['$ref' => '#/$defs/'.self::name($class)];
    }

    /** @param  class-string  $class */
    private static function name(string $class): string
    {
        return lcfirst(substr($class, (int) strrpos($class, '\\') + 1));
    }

    /**
     * Kinds of values and those within them.
     *
     * @param  list<class-string>  $classes
     * @return array<string, array<string, mixed>>
     */
    private static function definitions(array $classes): array
    {
        $out = [];
        foreach ($classes as $class) {
            $out[self::name($class)] = self::object($class);
            foreach (FieldList::of($class) as $f) {
                if ($f->field instanceof Part || $f->field instanceof Many) {
                    $out += self::definitions([$f->field->of]);
                }
            }
        }

        return $out;
    }

    /**
     * @param  class-string  $class
     * @return array<string, mixed>
     */
    private static function object(string $class): array
    {
        $list = FieldList::of($class);
        $properties = [];
        foreach ($list as $f) {
            $properties[$f->name] = $f->nullable ? self::orNull($f->field->schema()) : $f->field->schema();
        }
        $required = array_values(array_map(
            static fn (Listed $f): string => $f->name,
            array_filter($list, static fn (Listed $f): bool => $f->required),
        ));

        return ['type' => 'object'] + ($required === [] ? [] : ['required' => $required]) + ['properties' => $properties];
    }

    /**
     * @param  array<string, mixed>  $schema
     * @return array<string, mixed>
     */
    private static function orNull(array $schema): array
    {
        return match (true) {
            is_string($schema['type'] ?? null) => ['type' => [$schema['type'], 'null']] + $schema,
            is_array($schema['enum'] ?? null) => ['enum' => [...$schema['enum'], null]],
            default => ['anyOf' => [$schema, ['type' => 'null']]],
        };
    }
}

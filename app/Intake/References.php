<?php

declare(strict_types=1);

namespace App\Intake;

/**
 * Names of other files inside model files, made plain: relative, without "..", drives, schemes and hosts. What a reader opens
 * then lies in the drop or nowhere.
 */
final class References
{
    /** @param  string  $ending  of the file that is written, lower case */
    public static function plain(string $bytes, string $ending): string
    {
        return match ($ending) {
            'obj' => self::lines($bytes, '/^(\s*(?:mtllib|maplib|usemap|call|csh|trace_obj|shadow_obj)\b)(.*)$/mi'),
            'mtl' => self::lines($bytes, '/^(\s*(?:map_\w+|bump|disp|decal|refl|norm)\b)(.*)$/mi'),
            'ply' => self::lines($bytes, '/^(comment\s+TextureFile\b)(.*)$/mi'),
            'dae' => self::elements(self::withoutEntities($bytes)),
            'x3d' => self::attributes(self::withoutEntities($bytes)),
            default => $bytes,
        };
    }

    /** One name as it may stand in a file: "C:\maps\wood.png", "file:///maps/wood.png" and "../maps/wood.png" are maps/wood.png. */
    public static function name(string $name): string
    {
        $name = (string) preg_replace('#^\s*(?:[a-z][a-z0-9+.\-]*:)+(?://[^/\\\\]*)?#i', '', str_replace('\\', '/', rawurldecode($name)));
        $name = (string) preg_replace('#^//[^/]+#', '', $name);

        return FileMap::plain($name);
    }

    private static function lines(string $bytes, string $pattern): string
    {
        return preg_replace_callback($pattern, static function (array $m): string {
            $rest = rtrim($m[2], "\r");
            // A pipe or a scheme in one word must not survive by standing between blanks.
            $words = array_map(
                static fn (string $w): string => preg_match('#[/\\\\:|%]|\.\.#', $w) === 1 ? self::name($w) : $w,
                explode(' ', ltrim($rest)),
            );

            return $m[1].' '.implode(' ', $words);
        }, $bytes) ?? $bytes;
    }

    private static function elements(string $xml): string
    {
        $xml = preg_replace_callback(
            '#(<(?:\w+:)?(?:init_from|ref)\b[^>]*>)([^<]*)(</)#i',
            static fn (array $m): string => $m[1].self::quoted($m[2]).$m[3],
            $xml,
        ) ?? $xml;

        // Parts of other documents ("url" before the "#") are not fetched.
        return preg_replace_callback(
            '#(\b(?:url|source|href|target)\s*=\s*)("|\')([^"\']*)\2#i',
            static fn (array $m): string => $m[1].$m[2].(
                str_contains($m[3], '#')
                    ? (string) strrchr($m[3], '#')
                    : (str_contains($m[3], '/') || str_contains($m[3], ':') ? self::quoted($m[3]) : $m[3])
            ).$m[2],
            $xml,
        ) ?? $xml;
    }

    private static function attributes(string $xml): string
    {
        return preg_replace_callback('#(\burl\s*=\s*)("([^"]*)"|\'([^\']*)\')#i', static function (array $m): string {
            $mark = $m[2][0];
            $text = html_entity_decode(substr($m[2], 1, -1), ENT_QUOTES | ENT_XML1);
            preg_match_all('#"([^"]*)"|([^\s",]+)#', $text, $all, PREG_SET_ORDER);
            $names = array_map(static fn (array $n): string => '"'.self::name($n[1] !== '' ? $n[1] : ($n[2] ?? '')).'"', $all);

            return $m[1].$mark.htmlspecialchars(implode(' ', $names), ENT_QUOTES | ENT_XML1).$mark;
        }, $xml) ?? $xml;
    }

    private static function quoted(string $text): string
    {
        return htmlspecialchars(self::name(html_entity_decode(trim($text), ENT_QUOTES | ENT_XML1)), ENT_QUOTES | ENT_XML1);
    }

    /** Entities that a document declares itself can name files; ours need none. */
    private static function withoutEntities(string $xml): string
    {
        return preg_replace(
            ['/<!ENTITY[^>]*>/i', '/<!DOCTYPE[^>\[]*(\[.*?\])?\s*>/is', '/<\?xml-stylesheet.*?\?>/is', '/<(\w+:)?include\b[^>]*>/i'],
            '',
            $xml,
        ) ?? $xml;
    }
}

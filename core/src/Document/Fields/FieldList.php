<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\UnableToReadDocument;
use LogicException;
use ReflectionClass;
use ReflectionParameter;

/** The fields of a value in the order of its constructor, told by its attributes; read by reflection once a process. */
final class FieldList
{
    /** @var array<class-string, list<Listed>> */
    private static array $lists = [];

    /** @var array<class-string, Row> */
    private static array $rows = [];

    /**
     * @param  class-string  $class
     * @return list<Listed>
     */
    public static function of(string $class): array
    {
        return self::$lists[$class] ??= array_map(
            static fn (ReflectionParameter $p): Listed => self::listed($class, $p),
            (new ReflectionClass($class))->getConstructor()?->getParameters() ?? [],
        );
    }

    /** @param  class-string  $class */
    public static function row(string $class): Row
    {
        return self::$rows[$class] ??= ((new ReflectionClass($class))->getAttributes(Row::class)[0] ?? throw new LogicException(
            "{$class} does not say which rows it is.",
        ))->newInstance();
    }

    /** @param  class-string  $class */
    private static function listed(string $class, ReflectionParameter $p): Listed
    {
        $attribute = (new ReflectionClass($class))->getProperty($p->name)
            ->getAttributes(Field::class, \ReflectionAttribute::IS_INSTANCEOF)[0] ?? throw new LogicException(
                "{$class}::\${$p->name} does not say what it holds.",
            );

        return new Listed(
            $p->name, $attribute->newInstance(), ! $p->isDefaultValueAvailable(), $p->getType()?->allowsNull() ?? false,
            $p->isDefaultValueAvailable() ? $p->getDefaultValue() : null,
        );
    }

    /**
     * @template T of object
     *
     * @param  class-string<T>  $class
     * @return T
     *
     * @throws UnableToReadDocument naming the place
     */
    public static function read(string $class, Input $in): object
    {
        $values = [];
        foreach (self::of($class) as $f) {
            $values[] = $f->required || $in->has($f->name) ? $f->field->read($in, $f->name) : $f->default;
        }
        $value = new $class(...$values);
        if ($value instanceof Checked) {
            $value->check($in);
        }

        return $value;
    }

    /** @return array<string, mixed> as JSON holds it */
    public static function write(object $value): array
    {
        $out = [];
        foreach (self::of($value::class) as $f) {
            $held = $value->{$f->name};
            $out[$f->name] = $held === null ? null : $f->field->write($held);
        }

        return $out;
    }

    /** @return array<string, mixed> only what is not as it would be with nothing said */
    public static function differing(object $value): array
    {
        $out = [];
        foreach (self::of($value::class) as $f) {
            $held = $value->{$f->name};
            if ($held !== $f->default) {
                $out[$f->name] = $held === null ? null : $f->field->write($held);
            }
        }

        return $out;
    }
}

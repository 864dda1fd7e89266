<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

/** Members of untrusted data: missing or malformed ones are empty, and so prove nothing. */
final class UntrustedMembers
{
    public static function object(\stdClass $data, string $name): \stdClass
    {
        $value = $data->{$name} ?? null;

        return $value instanceof \stdClass ? $value : new \stdClass();
    }

    public static function text(\stdClass $data, string $name): string
    {
        $value = $data->{$name} ?? null;

        return \is_string($value) ? $value : '';
    }

    public static function whole(\stdClass $data, string $name): int
    {
        $value = $data->{$name} ?? null;

        return \is_int($value) ? $value : 0;
    }

    /** @return list<mixed> */
    public static function list(\stdClass $data, string $name): array
    {
        $value = $data->{$name} ?? null;

        return \is_array($value) ? array_values($value) : [];
    }
}

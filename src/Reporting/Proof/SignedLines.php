<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Proof;

/** JSON lines written to a file; the bytes written so far can be signed. */
final class SignedLines
{
    private const FLAGS =
        \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION;

    /** @var resource */
    private $handle;

    private readonly \HashContext $hash;

    public function __construct(string $path)
    {
        $handle = fopen($path, 'w');
        $this->handle = $handle === false ? throw new \RuntimeException("$path cannot be written.") : $handle;
        $this->hash = hash_init('sha256');
    }

    /** @param array<string, mixed> $value */
    public function line(array $value): void
    {
        $line = json_encode($value, self::FLAGS)."\n";
        hash_update($this->hash, $line);
        if (fwrite($this->handle, $line) !== \strlen($line)) {
            throw new \RuntimeException('The disk is full.');
        }
    }

    /** @return string SHA-256 of all lines so far, in hexadecimal */
    public function digest(): string
    {
        return hash_final(hash_copy($this->hash));
    }

    public function close(): void
    {
        fclose($this->handle);
    }
}

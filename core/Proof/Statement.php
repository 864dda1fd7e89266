<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

/** The exact bytes that are hashed or signed, with "\n" between their parts (docs/format/proof.md). */
final class Statement
{
    /**
     * The hashed bytes of a link, after the 32 bytes of the hash before it.
     *
     * @param string $recorded as "2026-11-27T05:14:23Z"
     * @param string $digest SHA-256 of the row in its canonical form, in hexadecimal
     */
    public static function link(
        string $siteId,
        int $position,
        string $kind,
        string $rowId,
        string $recorded,
        string $digest,
    ): string {
        return implode("\n", ['verjuicer-link/2', $siteId, $position, $kind, $rowId, $recorded, $digest]);
    }

    /**
     * The signed bytes of a seal: the chain of a site has this digest at this link.
     *
     * @param int $at seconds since 1970
     */
    public static function seal(string $siteId, int $position, string $digest, int $at): string
    {
        return implode("\n", ['verjuicer-seal/1', $siteId, $position, $digest, $at]);
    }

    /**
     * The signed bytes of a day signed with the password typed again.
     *
     * @param string $day as "2026-11-24"
     * @param string $digest of the chain at that link
     * @param int $at seconds since 1970, when the password was typed
     */
    public static function daySigned(
        string $siteId,
        string $signId,
        string $day,
        string $accountId,
        int $position,
        string $digest,
        int $at,
    ): string {
        return implode("\n", ['verjuicer-day/1', $siteId, $signId, $day, $accountId, $position, $digest, $at]);
    }

    /**
     * The signed bytes of a change to settings, people or catalogue rows by the application.
     *
     * @param string $keptId of the row with the new values
     * @param string $digest SHA-256 of that, in hexadecimal
     */
    public static function change(string $siteId, string $keptId, string $digest, string $initials): string
    {
        return implode("\n", ['verjuicer-change/1', $siteId, $keptId, $digest, $initials]);
    }

    /**
     * The signed bytes after the database of a site was restored to an earlier moment.
     *
     * @param int $kept the last link that is still there
     * @param int $cut the last link there was before, and its digest
     * @param int $savedAt seconds since 1970
     */
    public static function rollback(string $siteId, int $kept, int $cut, string $digest, int $savedAt): string
    {
        return implode("\n", ['verjuicer-rollback/1', $siteId, $kept, $cut, $digest, $savedAt]);
    }

    /** The bytes a key signs for its successor; public keys in hexadecimal. */
    public static function key(string $siteId, string $before, string $after): string
    {
        return implode("\n", ['verjuicer-key/1', $siteId, $before, $after]);
    }

    /**
     * The signed bytes of a file.
     *
     * @param 'proof'|'packet' $what
     * @param string $digest SHA-256 of all bytes before the signature, in hexadecimal
     */
    public static function file(string $what, string $siteId, string $digest): string
    {
        return implode("\n", ["verjuicer-$what/1", $siteId, $digest]);
    }

    /**
     * Whether one of several keys signed a message.
     *
     * @param list<string> $publicKeys
     * @param string|null $signature null where there is none: then none did
     */
    public static function isSignedByAny(array $publicKeys, string $message, ?string $signature): bool
    {
        foreach ($publicKeys as $key) {
            if ($signature !== null && self::isSignedBy($key, $message, $signature)) {
                return true;
            }
        }

        return false;
    }

    /**
     * Whether a signature (Ed25519, RFC 8032) is of a message.
     *
     * @param string $publicKey 32 bytes in hexadecimal
     * @param string $signature 64 bytes in hexadecimal
     */
    public static function isSignedBy(string $publicKey, string $message, string $signature): bool
    {
        try {
            [$key, $signed] = [sodium_hex2bin($publicKey), sodium_hex2bin($signature)];

            return $key !== '' && $signed !== '' && sodium_crypto_sign_verify_detached($signed, $message, $key);
        } catch (\SodiumException) {
            return false;
        }
    }
}

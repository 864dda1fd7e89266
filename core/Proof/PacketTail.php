<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

/**
 * The signature of a packet: an incremental update (ISO 32000-1, 7.5.6) after all signed bytes. Except for its key and
 * signature it follows from the bytes before it, so nothing else can be added there.
 */
final class PacketTail
{
    private const TRAILER =
        '/trailer\n<< (\/Size (\d{1,9}) \/Root \d{1,9} 0 R .*?)(?: \/Prev \d+)? >>\nstartxref\n(\d+)\n%%EOF\n$/D';
    private const SIGNATURE = '/\/Site \(([0-9a-f-]{36})\) \/Key \(([0-9a-f]{64})\) \/Signature \(([0-9a-f]{128})\)/';

    /** It is shorter than this. */
    private const MOST_BYTES = 4096;

    /**
     * @param string $signed all bytes of a packet up to and with its last "%%EOF\n"
     *
     * @throws \UnexpectedValueException where they end otherwise than we end them
     */
    public static function of(string $signed, string $siteId, string $key, string $signature): string
    {
        return self::ending($signed, $siteId, $key, $signature, 1);
    }

    /** @param int $counted objects that the trailer counts for the signature: 1, and 0 in packets of early versions */
    private static function ending(string $signed, string $siteId, string $key, string $signature, int $counted): string
    {
        if (preg_match(self::TRAILER, substr($signed, -self::MOST_BYTES), $part) !== 1) {
            throw new \UnexpectedValueException('No packet ends so.');
        }
        [, $entries, $size, $before] = $part;
        $entries = preg_replace('/^\/Size \d+/', '/Size '.((int) $size + $counted), $entries);
        $object = "$size 0 obj\n<< /Type /VerjuicerSignature /Site ($siteId) /Key ($key) /Signature ($signature) >>\n"
            ."endobj\n";

        return $object
            .\sprintf("xref\n%d 1\n%010d 00000 n \n", $size, \strlen($signed))
            .\sprintf("trailer\n<< %s /Prev %d /VerjuicerSignature %d 0 R >>\n", $entries, $before, $size)
            .\sprintf("startxref\n%d\n%%%%EOF\n", \strlen($signed) + \strlen($object));
    }

    /**
     * @return array{signed: int, site: string, key: string, signature: string}|null the number of signed bytes, and the
     *     signature; null if no signature ends the file
     */
    public static function in(string $packet): ?array
    {
        $end = substr($packet, -self::MOST_BYTES);
        $place = strrpos(substr($end, 0, -1), "%%EOF\n");
        if ($place === false || preg_match(self::SIGNATURE, substr($end, $place), $part) !== 1) {
            return null;
        }
        $length = \strlen($packet) - \strlen($end) + $place + \strlen("%%EOF\n");
        $signed = substr($packet, 0, $length);
        try {
            $ends = array_map(
                static fn (int $counted): string => self::ending($signed, $part[1], $part[2], $part[3], $counted),
                [1, 0],
            );
        } catch (\UnexpectedValueException) {
            return null;
        }

        return \in_array(substr($packet, $length), $ends, true)
            ? ['signed' => $length, 'site' => $part[1], 'key' => $part[2], 'signature' => $part[3]]
            : null;
    }

    /** @return string|null the attachment of a packet with that name */
    public static function attached(string $packet, string $name): ?string
    {
        $quoted = preg_quote($name, '/');
        $spec = "/<< \/Type \/Filespec \/F \($quoted\) [^>]*\/EF << \/F (\d+) 0 R >> >>/";
        if (preg_match($spec, $packet, $part) !== 1) {
            return null;
        }
        $start = strrpos($packet, "\n{$part[1]} 0 obj\n<< /Type /EmbeddedFile ");
        $head = $start === false ? '' : substr($packet, $start, self::MOST_BYTES);
        if ($start === false || preg_match('/ \/Length (\d+) >>\nstream\n/', $head, $of, \PREG_OFFSET_CAPTURE) !== 1) {
            return null;
        }
        $from = $start + $of[0][1] + \strlen($of[0][0]);
        $content = @gzuncompress(substr($packet, $from, (int) $of[1][0]));

        return $content === false ? null : $content;
    }
}

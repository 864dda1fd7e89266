<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Verjuicer\App\Reporting\Exchange\EventTable;
use Verjuicer\App\Reporting\Exchange\FormatDescription;

#[AsCommand('verjuicer:format', 'Write what docs/format says of events anew, out of the catalogue of kinds')]
final class FormatCommand extends Command
{
    public function __construct(#[Autowire('%kernel.project_dir%/docs/format')] private readonly string $folder)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        foreach (['record.schema.json' => self::schema(...), 'README.md' => self::readme(...)] as $file => $written) {
            $path = $this->folder.'/'.$file;
            file_put_contents($path, $written((string) file_get_contents($path)));
        }

        return self::SUCCESS;
    }

    /** The schema of records with its part on events as it is now. */
    public static function schema(string $json): string
    {
        $schema = json_decode($json, flags: \JSON_THROW_ON_ERROR);
        \assert($schema instanceof \stdClass && $schema->{'$defs'} instanceof \stdClass, 'it is a schema of ours');
        $schema->{'$defs'}->event = FormatDescription::schema();

        return json_encode(
            $schema,
            \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE,
        )."\n";
    }

    /** The text with its table of events, and the columns of a table of events, as they are now. */
    public static function readme(string $text): string
    {
        $columns = implode(
            "\n",
            array_map(
                static fn (string $line): string => '    '.$line,
                explode("\n", wordwrap(implode(', ', EventTable::columns()), 130)),
            ),
        );
        foreach (['events' => FormatDescription::table(), 'columns' => $columns."\n"] as $part => $written) {
            $marked = "#(<!-- $part, written by verjuicer:format -->\n).*?(<!-- end of $part -->)#s";
            $text = (string) preg_replace_callback(
                $marked,
                static fn (array $found): string => $found[1].$written.$found[2],
                $text,
            );
        }

        return $text;
    }
}

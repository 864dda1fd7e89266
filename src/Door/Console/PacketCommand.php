<?php

declare(strict_types=1);

namespace Verjuicer\App\Door\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Book\Packet\PacketMaker;
use Verjuicer\App\Book\Packet\Packets;

#[AsCommand('verjuicer:packet', 'Make the PDF of a packet that was asked for')]
final class PacketCommand extends Command
{
    public function __construct(private readonly Packets $packets, private readonly PacketMaker $maker)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('id', InputArgument::REQUIRED, 'The id of the packet');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $id = $input->getArgument('id');
        $packet = \is_string($id) ? $this->packets->find($id) : null;
        if ($packet === null) {
            $output->writeln('There is no packet of that id.');

            return self::INVALID;
        }
        if ($packet->finishedAt !== null) {
            $output->writeln('It is made already, and stays as it was handed on. Ask for a new one.');

            return self::INVALID;
        }
        try {
            $this->maker->make($packet);
        } catch (\Throwable $problem) {
            // Whoever waits for it is told; the log has the rest.
            $this->packets->fail($packet, $problem->getMessage());

            throw $problem;
        }

        return self::SUCCESS;
    }
}

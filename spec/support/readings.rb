require "yaml"

# How a reader fares with spec/vectors/lines_measured.yml: what it reads as somebody who was there would, what it asks
# about, what it reads otherwise, and where words of a sentence are lost. Used by the specs and by bin/bench lines.
module Readings
  VECTORS = File.expand_path("../vectors/lines_measured.yml", __dir__)
  PEOPLE = {
    "IT" => "Ines Torvald", "MH" => "Marit Hauge", "WH" => "Wen Halloran", "TQ" => "Tomás Queirós",
    "SD" => "Sunniva Dahl", "LE" => "Lars Ekeli", "LM" => "Lars Moen"
  }.freeze

  module_function

  def all = YAML.load_file(VECTORS, permitted_classes: [Date])

  # @return [Hash{Symbol => Integer}] all, right, asked, wrong, damaged
  def tally(reader)
    states = all.map { |row| state(reader, *row) }
    {all: states.size, right: 0, asked: 0, wrong: 0, damaged: 0}.merge(states.tally)
  end

  def state(reader, line, kind, text, owners, due, asked = nil)
    found = reader.read(line)
    wanted = [kind.to_sym, text || line, owners.split.map { |initials| PEOPLE[initials] }.sort, due]
    same = wanted == [found.kind, found.text, found.owner_ids.sort, found.due_on]
    return :asked if found.doubtful.any? && (same || !asked)
    return :right if same && !asked

    shorter = found.text.length < [wanted[1].length, line.length].min
    (shorter && found.kind == kind.to_sym && found.kind != :note) ? :damaged : :wrong
  end
end

# What is not clear of a line says what kind of doubt it is and what is asked, instead of being told apart by its words.
class SayWhatKindADoubtIs < ActiveRecord::Migration[7.2]
  class Line < ActiveRecord::Base
    self.table_name = "lines"
  end

  def up
    Line.where.not(doubtful: nil).find_each do |line|
      line.update_columns(doubtful: JSON.generate(JSON.parse(line.doubtful).map { |doubt| with_kind(doubt) }))
    end
  end

  def down = raise(ActiveRecord::IrreversibleMigration)

  private

  # Only names and days were asked about so far.
  def with_kind(doubt)
    return doubt if doubt.key?("kind")

    name, people = doubt.values_at("name", "people")
    kind, question = people.any? ? ["name", "Which #{name}?"] : ["date", "Is the date right? #{name}."]
    {kind: kind, said: name, question: question, people: people, parts: []}
  end
end

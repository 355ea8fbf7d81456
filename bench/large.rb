# The same pages with the demo's data and then with a hundred times as much around it: 5,000 people, 1,000 series with
# 100,000 meetings, 1 M actions, 1.4 M lines. Wanted: at most twice as slow. SHARE=0.1 makes a tenth of it.
require_relative "../config/boot"
require_relative "../demo/load"

SHARE = Float(ENV.fetch("SHARE", "1"))
TIMES = 30

# Rows by the thousand, made by the database itself; keys count up behind a prefix for each kind.
module Rows
  PEOPLE, SERIES, MEETINGS = 5_000, (1_000 * SHARE).ceil, 100
  ACTIONS, LINES = 10, 14 # of each meeting
  AT = "utc_timestamp(6)".freeze
  AT_ONCE = 50_000

  module_function

  def key(kind, number) = "concat('01900000-0000-7#{kind}-8000-', lpad(hex(#{number}), 12, '0'))"

  # Of meeting m of its series s: the last five are still to come, a week apart.
  def starts = "date_add(date(utc_timestamp()), interval (cast((m.seq - 1) % #{MEETINGS} as signed) - 94) * 168 hour)"

  # @param as [String] the name of the number in the columns
  def insert(table, count, as, columns)
    names, values = columns.merge(created_at: AT, updated_at: AT).transform_values(&:to_s).to_a.transpose
    (1..count).step(AT_ONCE) do |first|
      numbers = "seq_#{first}_to_#{[first + AT_ONCE - 1, count].min} #{as}"
      sql = "insert into #{table} (#{names.join(", ")}) select #{values.join(", ")} from #{numbers}"
      Records::Base.with_connection { |connection| connection.execute(sql) }
    end
  end

  def make = %i[people series members meetings lines actions owners].each { |rows| send(rows) }

  def people
    insert("people", PEOPLE, "p", id: key("a00", "p.seq"), name: "concat('Person ', p.seq)", time_zone: "'Europe/Oslo'",
      email: "concat('person', p.seq, '@large.example')")
  end

  def series
    keeper = key("a00", "s.seq * 5")
    insert("series", SERIES, "s", id: key("b00", "s.seq"), title: "concat('Series ', s.seq)", keeper_id: keeper,
      chair_id: keeper, time_zone: "'Europe/Oslo'", local_start: "'2025-01-06 09:00:00'", length_min: 45,
      rule: "'FREQ=WEEKLY'",
      told_at: AT)
  end

  def members
    insert("series_members", SERIES * 5, "m", id: key("c00", "m.seq"), series_id: key("b00", "(m.seq - 1) div 5 + 1"),
      person_id: key("a00", "m.seq"), role: "'required'")
  end

  def meetings
    past = "if((m.seq - 1) % #{MEETINGS} < 94, 'issued', 'planned')"
    insert("meetings", SERIES * MEETINGS, "m", id: key("d00", "m.seq"),
      series_id: key("b00", "(m.seq - 1) div #{MEETINGS} + 1"), original_start: starts,
      starts_at: starts, ends_at: "date_add(#{starts}, interval 45 minute)", state: past)
  end

  def lines
    meeting = "(l.seq - 1) div #{LINES} + 1"
    insert("`lines`", SERIES * MEETINGS * LINES, "l", id: key("e00", "l.seq"), meeting_id: key("d00", meeting),
      kind: "if((l.seq - 1) % #{LINES} < #{ACTIONS}, 'action', 'note')", text: "concat('What was said, line ', l.seq)",
      author_id: key("a00", "((#{meeting} - 1) div #{MEETINGS} + 1) * 5"), written_at: AT)
  end

  # Closed a meeting later, but for those of the last.
  def actions
    meeting = "(a.seq - 1) div #{ACTIONS} + 1"
    past = "((#{meeting} - 1) % #{MEETINGS} < 92)"
    insert("action_items", SERIES * MEETINGS * ACTIONS, "a", id: key("f00", "a.seq"),
      series_id: key("b00", "(#{meeting} - 1) div #{MEETINGS} + 1"),
      raised_at_meeting_id: key("d00", meeting), text: "concat('What is to be done, number ', a.seq)",
      line_id: key("e00", "(#{meeting} - 1) * #{LINES} + (a.seq - 1) % #{ACTIONS} + 1"),
      state: "if(#{past}, 'done', 'open')", raised_at: AT, closed_at: "if(#{past}, #{AT}, null)",
      closed_at_meeting_id: "if(#{past}, #{key("d00", "#{meeting} + 1")}, null)")
  end

  def owners
    of = SERIES * MEETINGS * ACTIONS
    insert("action_owners", of, "o", id: key("f0a", "o.seq"), action_item_id: key("f00", "o.seq"),
      person_id: key("a00", "((o.seq - 1) div #{MEETINGS * ACTIONS}) * 5 + o.seq % 5 + 1"))
  end
end

def pages(marit, series, sheet)
  {
    "people" => -> { Views::People.new(by: marit).list }, "series" => -> { Views::SeriesList.new(by: marit).list },
    "actions" => -> { Views::Actions.new(by: marit).list }, "a sheet" => -> { Views::Sheet.new(by: marit).show(sheet) },
    "a typed line" => -> { Views::Line.new(by: marit).read(sheet, "Ines to order shackles by Friday") },
    "a series" => -> { Views::SeriesPage.new(by: marit).show(series) },
    "answers" => -> { Views::AnswerTable.new(by: marit).show(series) },
    "strands" => -> { Views::Strands.new(by: marit).show(series) }, "Desk" => -> { Views::Desk.new(by: marit).show },
    "to go to" => -> { Views::Destinations.new(by: marit).find_by("ines torvald") }
  }
end

def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

# @return [Hash{String => Float}] milliseconds, median, each page in turn
def times(pages)
  measured = pages.transform_values { [] }
  (TIMES + 3).times do
    pages.each do |name, page|
      begun = clock
      page.call
      measured[name] << (clock - begun) * 1_000
    end
  end
  measured.transform_values { |some| some.drop(3).sort[TIMES / 2] }
end

$stdout = StringIO.new
Demo.load_once
$stdout = STDOUT
marit = Records::Person.find_by!(email: "marit@skerrybuoy.example").id
series = Records::Series.find_by!(title: "Monday mooring round").id
sheet = Records::Meeting.where(series_id: series).coming(Clock.now).in_order.first.id
pages = pages(marit, series, sheet)
small = times(pages)
begun = clock
Rows.make
Records::Base.with_connection { |one| one.execute("analyze table `lines`, action_items, meetings, series_members") }
puts "#{Rows::SERIES} series made in #{(clock - begun).round} s"
large = times(pages)
puts "              demo       large   ratio"
pages.each_key do |name|
  puts format("%-12s %6.1f ms %7.1f ms %6.1f", name, small[name], large[name], large[name] / small[name])
end
crowded = Views::Strands.new(by: Rows.then { Records::Series.find_by!(title: "Series 1").keeper_id })
begun = clock
crowded.show(Records::Series.find_by!(title: "Series 1").id)
puts format("strands of a series with 1,000 actions: %.0f ms", (clock - begun) * 1_000)

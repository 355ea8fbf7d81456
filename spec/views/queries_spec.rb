require_relative "../app_helper"

# A page reads in a fixed number of queries, however much there is to show.
RSpec.describe "What a page reads", :timeless do
  let(:marit) { person("Marit Hauge", admin: true) }
  let(:others) { ["Wen Halloran", "Lars Ekeli", "Ines Torvald", "Odd Berge", "Tomás Reis"].map { |name| person(name) } }

  # Series of a keeper with what hangs on them: answers, lines, actions, topics, mails, another who comes instead.
  def fill(number)
    number.times do |i|
      clock.now += 1
      id = series(marit, {required: others.first(1 + i % 4), optional: others.last(1)}, title: "Round #{i}")
      invite(id, marit)
      meetings = meeting_ids(id)
      others.first(1 + i % 4).each { |one| answer(meetings[i % 2], one) }
      topic(meetings.first, marit, "Topic #{i}")
      raise_action(meetings.first, marit, "Action #{i}", owners: [marit])
      Records::Series.find(id).update!(purpose: "Untold #{i}") if i.even?
      hold(i)
      @last = [id, meetings.first, others.first]
    end
  end

  def answer(meeting_id, person_id)
    use(UseCases::Answers, person_id).enter(meeting_id: meeting_id, person_id: person_id, answer: "declined")
  end

  def hold(number)
    use(UseCases::Holds, marit).keep(
      id: key, title: "Hold #{number}", starts_at: clock.now + (10 + number) * 86_400, length_min: 30,
      time_zone: "Europe/Oslo", people: [{person_id: others.first, role: "required"}]
    )
  end

  def queries
    count, here = 0, Thread.current # not what a server of other examples asks meanwhile
    counting = ActiveSupport::Notifications.subscribe("sql.active_record") do |*, payload|
      count += 1 if Thread.current == here && payload[:name] != "SCHEMA"
    end
    yield
    count
  ensure
    ActiveSupport::Notifications.unsubscribe(counting)
  end

  {
    "the Desk" => ->(by, clock, _) { Views::Desk.new(by: by, clock: clock).show },
    "the Desk of somebody asked" => ->(_, clock, (*, asked)) { Views::Desk.new(by: asked, clock: clock).show },
    "the list of series" => ->(by, clock, _) { Views::SeriesList.new(by: by, clock: clock).list },
    "a series" => ->(by, clock, (series, _)) { Views::SeriesPage.new(by: by, clock: clock).show(series) },
    "its answers" => ->(by, clock, (series, _)) { Views::AnswerTable.new(by: by, clock: clock).show(series) },
    "its strands" => ->(by, clock, (series, _)) { Views::Strands.new(by: by, clock: clock).show(series) },
    "all strands" => ->(by, clock, _) { Views::Strands.new(by: by, clock: clock).all },
    "its sheets" => ->(by, clock, (series, _)) { Views::SeriesMeetings.new(by: by, clock: clock).list(series) },
    "its history" => ->(by, clock, (series, _)) { Views::History.new(by: by, clock: clock).show(series) },
    "a sheet" => ->(by, clock, (_, meeting)) { Views::Sheet.new(by: by, clock: clock).show(meeting) },
    "the list of actions" => ->(by, clock, _) { Views::Actions.new(by: by, clock: clock).list },
    "the list of people" => ->(by, clock, _) { Views::People.new(by: by, clock: clock).list },
    "groups" => ->(by, clock, _) { Views::Groups.new(by: by, clock: clock).list },
    "times held" => ->(by, clock, _) { Views::Holds.new(by: by, clock: clock).list },
    "the mail of a series" => ->(by, clock, (series, _)) do
      Views::Invitation.new(by: by, clock: clock).preview(series_id: series)
    end
  }.each do |page, read|
    it "is asked for in as many queries for a few as for many: #{page}" do
      fill(2)
      read.call(marit, clock, @last) # once, so that what is cached for ever is there
      few = queries { read.call(marit, clock, @last) }
      fill(8)
      expect(queries { read.call(marit, clock, @last) }).to be <= few
    end
  end
end

ENV["LEFT_OVER_ENV"] = "test"
require_relative "spec_helper"
require_relative "../config/boot"
ActiveModel::SecurePassword.min_cost = true
BCrypt::Engine.cost = 4

# A clock of its own, that stands where it is set.
SetClock = Struct.new(:now)

# The one clock of the program (config/clock.rb). It goes on where a browser or the API is spoken to, and stands still
# elsewhere: at the moment the specs are run as of, or at the one a story with dates of its own is told `at:`.
module StagedClock
  class << self
    def now = Clock.now

    def now=(time)
      @goes_on ? Clock.go_on(time) : Clock.stand_at(time)
    end

    # Before each example.
    def set(goes_on:, at: nil)
      @goes_on = goes_on
      Clock.go_on
      self.now = at ? Time.iso8601(at) : Clock.now.floor if at || !goes_on
      @began = now
    end

    # From another time to the one the specs are run as of.
    def back = Clock.go_on

    # When the example began, wherever the clock has been set since.
    attr_reader :began
  end
end

# People, series and meetings, made as a person would: through the use cases.
module Stage
  PASSWORD = "buoys afloat"
  # For stories with dates of their own: a Tuesday morning; a Monday series meets on the 30th and on 7 December.
  STORY = "2026-11-24T08:00:00Z"

  def clock = StagedClock

  # @return [Date] on which the example began, in Oslo, where most people of the specs are
  def today = Core::Zone["Europe/Oslo"].wall(clock.began).date

  # The next Monday that is two days ahead at least, and those after it.
  def next_monday(weeks = 0) = (today + 2).then { |day| day + (1 - day.wday) % 7 + 7 * weeks }

  def key = Records::Key.make

  # Made once: looking how easy a password is to guess takes its time.
  DIGEST = BCrypt::Password.create(PASSWORD, cost: 4).to_s

  # @return [Hash{String => String}] private addresses by kind
  def open_feeds(person_id)
    use(UseCases::Feeds, person_id).set(person_id, open: true)
    use(Views::Feeds, person_id).show(person_id)[:addresses]
  end

  # Whoever opens their private link.
  def answer_link(series_id, person_id)
    token = Loading::AnswerLink.token(series_id, person_id)
    Loading::AnswerLink.new(series_id: series_id, person_id: person_id, token: token)
  end

  # "Tomás Reis" → tomas@skerrybuoy.example
  def address_of(name) = "#{name.split.first.unicode_normalize(:nfd).delete("^a-zA-Z").downcase}@skerrybuoy.example"

  def person(name, zone: "Europe/Oslo", admin: false, email: nil)
    id = key
    UseCases::People.new(clock: clock).add(
      id: id, name: name, email: email || address_of(name), time_zone: zone, admin: admin
    )
    Records::Person.where(id: id).update_all(password_digest: DIGEST)
    id
  end

  # Hands over all mail that waits. @return [Array<Mail::Message>] as they went
  def handed_over
    sources = []
    post = Object.new.tap { |one| one.define_singleton_method(:deliver) { |source:, **| sources << source } }
    nil while UseCases::Outbox.new(clock: clock).deliver(post).positive?
    sources.map { |source| Mail.new(source) }
  end

  # A keeper who wants mail about their own series as well.
  def wants_own_mail(person_id) = Records::Person.where(id: person_id).update_all(mail_own: true)

  # Tells everybody of a series.
  def invite(series_id, by) = use(UseCases::Invitations, by).send_all(id: key, series_id: series_id)

  def use(kind, by) = kind.new(by: by, clock: clock)

  # @param members [Hash] role to people
  def series(
    keeper, members = {}, title: "Monday mooring round", start: "#{next_monday}T09:30",
    rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=6", zone: "Europe/Oslo", **rest
  )
    id = key
    use(UseCases::Series, keeper).create(
      id: id,
      title: title,
      run: {
        local_start: start, time_zone: zone, length_min: 45, rule: rule
      },
      **rest,
      members:
        members.flat_map do |role, people|
          Array(people).map { |person_id| {person_id: person_id, role: role.to_s} }
        end
    )
    id
  end

  def meeting_ids(series_id) = Records::Meeting.where(series_id: series_id).in_order.pluck(:id)

  def sheet(meeting_id, by) = use(Views::Sheet, by).show(meeting_id)

  def state(meeting_id, by, state, **rest) =
    use(UseCases::Meetings, by).change_state(meeting_id: meeting_id, state: state, **rest)

  def topic(meeting_id, by, title, **rest)
    id = key
    use(UseCases::Topics, by).add(id: id, meeting_id: meeting_id, title: title, **rest)
    id
  end

  # @return [String] key of the action the line raises
  def raise_action(meeting_id, by, text, owners: [], topic_id: nil)
    id = key
    use(UseCases::Minutes, by).add(
      id: key,
      meeting_id: meeting_id,
      topic_id: topic_id,
      kind: "action",
      text: text,
      action: {
        id: id, owner_ids: owners, due_on: nil
      }
    )
    id
  end
end

# An empty database before each example that has one. Which of its tables hold anything is asked in one query.
module Emptied
  module_function

  def empty
    Records::Base.connection_pool.with_connection do |connection|
      full = connection.select_values(question(connection))
      next if full.empty?

      connection.disable_referential_integrity do
        full.each { |table| connection.execute("DELETE FROM #{connection.quote_table_name(table)}") }
      end
    end
  end

  def question(connection)
    @question ||= (connection.tables - %w[schema_migrations ar_internal_metadata]).map do |table|
      "select '#{table}' from dual where exists (select 1 from #{connection.quote_table_name(table)})"
    end.join(" union all ")
  end
end

RSpec.configure do |config|
  config.include Stage
  config.before do |example|
    StagedClock.set(goes_on: example.metadata.values_at(:api, :web).any?, at: example.metadata[:at])
  end
  config.before { |example| Emptied.empty unless example.metadata[:file_path].start_with?("./spec/core/") }
end

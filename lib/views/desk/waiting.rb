module Views
  # What is waiting for whoever runs series: times that are offered, people who will not come after all, mail that did
  # not arrive.
  class Waiting < Base
    # A refusal is news for so long, of meetings so near.
    NEWS_S = 3 * 86_400
    NEAR_S = 14 * 86_400

    # @param me [Records::Person]
    # @param run [Array<Records::Series>] that the reader runs, with members and their people
    # @param seen [Set<String>] notices that are put aside
    def initialize(me:, run:, seen:, **rest)
      super(**rest)
      @seen = seen
      @mine = run.index_by(&:id)
      @known = [me, *run, *run.flat_map { |series| series.members.map(&:person) }].uniq
      @me = me
    end

    def show
      {offers: offers, refusals: refusals, failed_mails: failed_mails, empty_meetings: empty_meetings,
       preparations: preparations, hostings: hostings, polls: TimePolls.new(by: by, clock: @clock).waiting(@me)}
    end

    private

    attr_reader :mine

    def preparations = Preparations.new(by: by, clock: @clock).worrying(mine)

    # Open hours of others that I am asked to be a host of.
    def hostings
      Records::OpenHoursHost.where(person_id: by, agreed_at: nil).joins(:open_hours).merge(Records::OpenHours.here)
        .includes(open_hours: :kept_by).order(:created_at, :id).map do |host|
          {id: host.id, title: host.open_hours.title, keeper: host.open_hours.kept_by.name}
        end
    end

    def offers
      open = Records::OfferedTime.where(series_id: mine.keys, state: "open").joins(:meeting)
        .where("meetings.ends_at > ?", now).includes(:person, :meeting).order(:created_at, :id)
      open.map do |offered|
        series = mine[offered.series_id]
        {id: offered.id, series_id: series.id, title: series.title, name: offered.person.name,
         meeting_local_start: series.zone.wall(offered.meeting.starts_at),
         local_start: series.zone.wall(offered.starts_at)}
      end
    end

    def refusals
      near =
        Records::Meeting.where(series_id: mine.keys).coming(now).where("starts_at < ?", now + NEAR_S).index_by(&:id)
      declined =
        Records::Answer
          .where(meeting_id: near.keys, answer: "declined")
          .where("answered_at > ?", now - NEWS_S)
          .where.not(person_id: by)
          .where("entered_by_id is null or entered_by_id <> ?", by)
      rows = Records::Base.fill(declined.order(:answered_at), :person, known: @known).map do |given|
        refusal(given, near[given.meeting_id])
      end
      rows.reject { |one| @seen.include?(one[:notice]) }
    end

    def refusal(given, meeting)
      series = mine[meeting.series_id]
      {
        meeting_id: meeting.id, series_id: series.id, title: series.title, name: given.person.name, note: given.note,
        local_start: series.zone.wall(meeting.starts_at),
        notice: Records::SeenNotice.name_of("away", meeting.id, given.person_id, given.answered_at.to_i)
      }
    end

    # Meetings to come soon that have nothing on them, and topics that members have brought.
    def empty_meetings
      told = mine.values.select(&:told_at)
      Loading::EmptyMeetings.of(told.map(&:id), now, known: told).map do |meeting|
        {
          meeting_id: meeting.id, title: meeting.series.title, version: meeting.lock_version,
          local_start: meeting.series.zone.wall(meeting.starts_at)
        }
      end
    end

    # Addresses that the last mail of a series could not reach.
    def failed_mails
      people = Records::Person.where(email: failing.keys.map(&:last)).index_by(&:email)
      failing.filter_map do |(series_id, recipient), error|
        person = people[recipient] or next
        {series_id: series_id, title: mine[series_id].title, person_id: person.id, name: person.name,
         guest: person.guest, email: recipient, error: error}
      end
    end

    # @return [Hash{Array(String, String) => String}] series and address to what was wrong
    def failing
      @failing ||= begin
        ever = Records::Mail.where(series_id: mine.keys, state: "failed").select(:recipient)
        mails = Records::Mail.where(series_id: mine.keys, way: "mail", recipient: ever)
        tried = mails.where.not(state: %w[waiting set_aside]).order(:created_at, :id)
        last = tried.pluck(:series_id, :recipient, :state, :last_error)
        last.to_h { |series_id, to, state, error| [[series_id, to], (error.to_s if state == "failed")] }.compact
      end
    end
  end
end

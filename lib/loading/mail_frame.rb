module Loading
  # What all mails of a sending are made of besides what is told: who keeps the series, how one answers, the agenda and
  # papers that go along, what each had answered. It is kept with the sending as it was then, so that a mail that is
  # composed again is the same, whatever has changed meanwhile. What may differ, and is wanted to: a paper that was
  # removed since goes along no more, and links are those that are worth something when the mail goes.
  class MailFrame < Core::Value.of(
    :keeper, :keeper_email, :mark, :options, :records, :agenda, :papers, :run_answers, :answers, :alarms, :lapsed
  )
    class << self
      # As it is now.
      # @param series [Records::Series] with keeper, members and their people
      # @param papers [NextPapers]
      def now(series, papers, now:)
        people = series.members.map(&:person)
        new(
          keeper: series.keeper.name, keeper_email: series.keeper.email, mark: series.mark,
          options: series.options.to_h, records: series.door_records, agenda: papers.agenda, papers: papers.papers,
          run_answers: run_answers(series), answers: answers(series, now),
          alarms: people.to_h { |person| [person.id, alarm_min(series, person)] }, lapsed: lapsed(series, now)
        )
      end

      # @param plain [Hash] as `to_plain` gave it, once it was JSON
      def of(plain)
        known = plain.transform_keys(&:to_sym).slice(*self::NAMES)
        new(
          lapsed: {}, **known, options: known[:options].transform_keys(&:to_sym),
          agenda: known[:agenda] && deep(known[:agenda]), papers: known[:papers].map { |paper| deep(paper) }
        )
      end

      # As long before as they want to be reminded themselves, else as the series has it, else as is usual.
      def alarm_min(series, person)
        [person.remind_min, series.remind_min].compact.find(&:positive?) || Core::Invitation::Request::ALARM_MIN
      end

      private

      def deep(plain) = JSON.parse(JSON.generate(plain), symbolize_names: true)

      def run_answers(series) =
        series.members.to_h { |member| [member.person_id, member.run_answer] }.compact

      # Whoever has answered to all and to some not, or not any more, is asked there.
      # @return [Hash{String => Hash{String => String}}] by person: walls and answers
      def answers(series, now)
        given = given(series, now).where.not(answer: "none").group_by(&:person_id)
        given.default = []
        walls = series.meetings.coming(now).reject { |one| one.options.sign_up }.map { |one| one.original_wall.to_s }
        to_all = run_answers(series).reject { |_, answer| answer == "none" }
        ids = given.keys | to_all.keys
        ids.to_h do |id|
          theirs = given[id].to_h { |one| [one.meeting.original_wall.to_s, one.answer] }
          silent = to_all.key?(id) ? walls - theirs.keys : []
          [id, silent.to_h { |wall| [wall, "none"] }.merge(theirs).sort.to_h]
        end
      end

      # @return [Hash{String => Array<String>}] by person: the walls of dates whose answer does not count any more
      def lapsed(series, now)
        given(series, now).where(answer: "none").where.not(lapsed_at: nil).group_by(&:person_id)
          .transform_values { |some| some.map { |one| one.meeting.original_wall.to_s }.sort }
      end

      def given(series, now) =
        Records::Answer.where(meeting_id: series.meetings.coming(now).select(:id)).includes(meeting: :series)
    end

    def to_plain = to_h

    def core_options = Core::Invitation::Options.new(**options)

    def run_answer(person_id) = run_answers.fetch(person_id, "none")

    # Answers to single meetings that are not the answer to all.
    # @return [Hash{String => Symbol}]
    def own_answers(person_id)
      answers.fetch(person_id, {}).reject { |_, answer| answer == run_answer(person_id) }.transform_values(&:to_sym)
    end

    # @return [Array<Core::WallTime>] dates they had answered to, whose times have changed since
    def lapsed_of(person_id) = lapsed.fetch(person_id, []).map { |wall| Core::WallTime.parse(wall) }

    def alarm_min(person_id) = alarms.fetch(person_id, Core::Invitation::Request::ALARM_MIN)
  end
end

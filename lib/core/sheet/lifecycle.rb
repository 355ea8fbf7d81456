module Core
  module Sheet
    # The life of a sheet. Each change has one action and can be undone until the minutes are issued.
    module Lifecycle
      STATES = %i[planned in_session closed issued called_off].freeze
      # Held meetings count when actions are carried; called-off ones do not.
      HELD = %i[in_session closed issued].freeze
      # What still lies before a series: prepared, or being held.
      OPEN = %i[planned in_session].freeze
      MOVES = {
        planned: %i[in_session called_off],
        in_session: %i[closed planned],
        closed: %i[issued in_session],
        called_off: %i[planned],
        issued: []
      }.freeze
      WORDS = {
        planned: "planned", in_session: "in session", closed: "closed", issued: "issued", called_off: "called off"
      }.freeze

      module_function

      # @raise [Conflict] when the state does not allow it
      def move(from, to)
        return to if MOVES.fetch(from).include?(to)

        raise Conflict.new(
          "The meeting is #{WORDS[from]}, so it cannot become #{WORDS[to]}.", code: "state", state: from.to_s
        )
      end

      # Whether topics and lines may still be changed; issued minutes are frozen.
      def editable?(state) = %i[planned in_session closed].include?(state)

      # @raise [Conflict] unless editable?
      def refuse_frozen(state)
        return if editable?(state)

        raise Conflict.new("This sheet is #{WORDS[state]} and no longer changes.", code: "frozen", state: state.to_s)
      end

      # @raise [Conflict] when nobody can say any more that they come, or who comes besides
      def refuse_over(state, ends_at, now)
        return unless ends_at <= now || state == :called_off

        raise Conflict.new("This meeting is over.", code: "state")
      end
    end
  end
end

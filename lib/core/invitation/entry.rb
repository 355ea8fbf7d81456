module Core
  module Invitation
    # One meeting, by its UID, in one calendar, as the messages have made it (RFC 5546): the state of the organizer's
    # side and of an invited person's, and what each message does to it. Messages may come twice, late and out of order.
    class Entry
      # A component: the whole (key nil) or one instance (key: its RECURRENCE-ID in seconds). `event` nil where only a
      # cancellation has come. `answers` of the one instance where they differ from the whole; `made_by`: the numbers of
      # the messages it stands on.
      # `tail`: whether it says the same of all later instances (RFC 5545 3.2.13).
      Part = Value.of(:sequence, :stamp, :event, :cancelled, :answers, :made_by, :tail)
      # Another time somebody offers.
      Counter = Value.of(:from, :recurrence_s, :starts_s, :ends_s, :comment)

      attr_reader :parts, :attendees, :counters, :crashers, :busy

      # @param side [Symbol] :organizer or :attendee
      def initialize(side)
        @side = side
        @parts = {}
        @attendees = {}
        @instance_replies = Hash.new { |replies, key| replies[key] = {} }
        @answered = {}
        @counters = []
        @crashers = {}
        @busy = {}
        @number = -1
      end

      def whole = @parts[nil]

      def cancelled? = !whole.nil? && whole.cancelled

      # Answers to single instances: as listed, and replied since. @return [Hash{Integer => Hash{String => String}}]
      def instance_attendees
        listed = @parts.filter_map { |key, part| [key, part.answers] if key }.to_h
        listed
          .merge(@instance_replies) { |_, answers, replies| answers.merge(replies) }
          .reject { |_, answers| answers.empty? }
      end

      # The component that speaks for the meeting: the whole, or where only instances are known, the first of them.
      def shown = whole || @parts.values.first

      # The numbers of the messages that have made what stands now, from 0 in the order they were taken: without the
      # others it would stand the same.
      # @return [Array<Integer>]
      def made_by = [*@parts.values, *@answered.values].flat_map(&:made_by).uniq.sort

      # @param message [Message]
      # @param sender [String] the address it really came from
      # @return [Symbol] applied, or why not: ignored_stale, ignored_duplicate, ignored_not_organizer, party_crasher, or
      #   what it asks for: counter_pending, send_request, send_refresh
      def take(message, sender:, outgoing: false)
        sender = sender.downcase
        @number += 1
        return note_busy(message) if message.events.empty?
        return reply(message, sender) if message.method == "reply"
        return ask(message, sender) if !outgoing && @side == :organizer
        # What the invited ask of the organizer is nothing to the other invited (RFC 5546 3.2.6, 3.2.7), and changes
        # nothing with themselves until the organizer has answered.
        if %w[counter refresh].include?(message.method) && @side == :attendee
          return outgoing ? :sent : :ignored_not_organizer
        end

        outcomes = message.events.map { |event| component(message.method, event, sender, outgoing) }
        outcomes.include?(:applied) ? :applied : outcomes.first
      end

      # @return [Array<ICalendar::Instances::Instance>] within [from, to), cancelled ones left out
      # @param budget [Budget] what expanding may cost
      def instances(from, to, budget: Budget.new)
        return [] if cancelled?

        events = @parts.filter_map do |key, part|
          part.event&.with(
            recurrence_id: key && part.event.recurrence_id, status: part.cancelled ? "cancelled" : part.event.status
          )
        end
        added = @parts.filter_map do |key, part|
          part.event if key && part.event && part.event.recurrence_id.nil? && !part.cancelled
        end
        of_series =
          ICalendar::Instances
            .new(events - added, budget: budget)
            .within(from, to)
            .reject { |instance| gone?(instance) }
        (of_series + added.map { |event| single(event) }.reject { |one| cut_off?(one) }).sort_by(&:starts_s)
      end

      private

      def gone?(instance)
        instance.event.status == "cancelled" || @parts[instance.recurrence_s]&.cancelled || cut_off?(instance)
      end

      # Whether it and all later ones have been called off, and nothing newer was said of it by itself.
      def cut_off?(instance)
        own = @parts[instance.recurrence_s]
        @parts.any? do |key, part|
          key && part.tail && part.cancelled && key <= instance.recurrence_s && !(own && newer?(own, part))
        end
      end

      def newer?(one, other) = ([one.sequence, one.stamp.to_i] <=> [other.sequence, other.stamp.to_i]).positive?

      def single(event)
        starts_s = event.start.instant_s
        ICalendar::Instances::Instance.new(
          starts_s: starts_s, ends_s: event.ends_s(starts_s), recurrence_s: starts_s, event: event
        )
      end

      def note_busy(message)
        @busy.merge!(message.busy)
        :applied
      end

      # What an invited person asks of the organizer.
      def ask(message, sender)
        return :send_request if message.method == "refresh"
        return :ignored_not_organizer unless message.method == "counter"

        event = message.events.first
        @counters << Counter.new(
          from: sender, recurrence_s: event.recurrence_id&.instant_s, starts_s: event.start.instant_s,
          ends_s: event.ends_s(event.start.instant_s), comment: event.comment
        )
        :counter_pending
      end

      def order(event, known)
        Reply.older([event.sequence, event.stamp.to_i], [known.sequence, known.stamp.to_i])
      end

      def component(method, event, sender, outgoing)
        key = event.recurrence_id&.instant_s
        key = event.start.instant_s if method == "add"
        return :send_refresh if method == "add" && !whole
        return decline_counter(event) if method == "declinecounter"
        return :ignored_not_organizer if foreign?(method, event, sender, outgoing)
        return remove(event) if method == "cancel" && outgoing && only_some?(event)

        late = @parts[key] || whole
        refused = late && (@parts[key] || event.sequence < late.sequence) && order(event, late)
        return refused if refused

        (method == "cancel") ? cancel(key, event) : put(key, event, method)
      end

      # A meeting that is known is changed by its organizer alone, or whoever that message said may send for them (RFC
      # 5545 3.2.18): anybody can name the right organizer. A first request may be handed on by anybody, and names its
      # organizer still.
      def foreign?(method, event, sender, outgoing)
        known = shown&.event
        return false if outgoing || !known&.organizer || !event.organizer

        known.organizer != event.organizer || ![known.organizer, known.organizer_sent_by].include?(sender)
      end

      def put(key, event, method)
        forget_before(event.sequence) if key.nil?
        @parts[key] = Part.new(
          sequence: event.sequence, stamp: event.stamp, event: event, cancelled: false,
          answers: note_attendees(key, event), made_by: made_by_now(key), tail: event.this_and_future
        )
        @parts[nil] = whole.with(sequence: event.sequence, made_by: whole.made_by + [@number]) if method == "add"
        @counters.clear if key.nil? || @counters.all? { |counter| counter.recurrence_s == key }
        :applied
      end

      # Of a single instance only what differs from the whole is noted, so it stands on what that was when it came.
      def made_by_now(key)
        whole_then = key ? [*whole&.made_by, *@answered.select { |(of, _), _| of.nil? }.values.flat_map(&:made_by)] : []
        [*whole_then, @number].uniq
      end

      # A later whole replaces what was said of single instances before, answers to them included.
      def forget_before(sequence)
        gone = @parts.select { |key, part| key && part.sequence < sequence }.keys
        gone.each do |key|
          @parts.delete(key)
          @instance_replies.delete(key)
          @answered.delete_if { |(of, _), _| of == key }
        end
      end

      # @return [Hash] what of a single instance differs from the whole
      def note_attendees(key, event)
        listed = event.attendees.to_h { |attendee| [attendee.address, attendee.partstat] }
        @instance_replies.delete(key)
        if key.nil? || whole.nil?
          @attendees = listed
          return {}
        end
        listed.reject { |address, partstat| partstat == @attendees[address] }
      end

      def cancel(key, event)
        known = @parts[key]&.event || (key.nil? ? event : nil)
        @attendees = event.attendees.to_h { |attendee| [attendee.address, attendee.partstat] } if @parts.empty?
        made_by = (@parts[key]&.made_by || []) + [@number]
        @parts[key] = Part.new(
          sequence: event.sequence, stamp: event.stamp, event: known&.start ? known : nil, cancelled: true,
          answers: {}, made_by: made_by, tail: event.this_and_future
        )
        :applied
      end

      # A cancellation for some only takes them off; the meeting stays.
      def only_some?(event)
        named = event.attendees.map(&:address)
        named.any? && event.recurrence_id.nil? && whole && !(@attendees.keys - named - [event.organizer]).empty?
      end

      def remove(event)
        named = event.attendees.map(&:address)
        named.each { |address| [@attendees, @crashers].each { |list| list.delete(address) } }
        @parts[nil] = whole.with(sequence: [whole.sequence, event.sequence].max, made_by: whole.made_by + [@number])
        :applied
      end

      def decline_counter(event)
        named = event.attendees.map(&:address)
        @counters.reject! { |counter| named.empty? || named.include?(counter.from) }
        :applied
      end

      def reply(message, sender)
        event = message.events.first
        attendee = Reply.attendee(event, sender) or return :ignored_not_attendee
        key = event.recurrence_id&.instant_s
        current = @parts[key] || whole
        return :ignored_stale if @side == :organizer && current && event.sequence < current.sequence

        known = @answered[[key, attendee.address]]
        refused = known && order(event, known)
        return refused if refused

        answer(key, attendee, event)
      end

      def answer(key, attendee, event)
        unless invited?(key, attendee)
          @crashers[attendee.address] = attendee.partstat
          return :party_crasher
        end
        @answered[[key, attendee.address]] = Part.new(
          sequence: event.sequence, stamp: event.stamp, event: nil, cancelled: false, answers: {}, made_by: [@number],
          tail: false
        )
        key ?
          @instance_replies[key][attendee.address] = attendee.partstat :
          @attendees[attendee.address] = attendee.partstat
        delegate(event, attendee) if key.nil? && attendee.partstat == "delegated"
        :applied
      end

      def invited?(_key, attendee) =
        @attendees.key?(attendee.address) || @attendees.key?(attendee.delegated_from) || @side == :attendee

      # Whom somebody has sent instead is invited from then on.
      def delegate(event, _attendee)
        event.attendees.filter_map(&:delegated_to).each { |address| @attendees[address] ||= "needs-action" }
      end
    end
  end
end

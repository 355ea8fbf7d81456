module Core
  module Asking
    # What a visitor is asked who books a time: short or long words, one of several choices, or a tick.
    module Questions
      KINDS = %w[short long choice tick].freeze
      MOST = 12
      MOST_CHOICES = 20
      LENGTHS = {"short" => 200, "long" => 2_000}.freeze

      module_function

      # @param questions [Array<Hash{String => Object}>] kind, text, required and choices
      # @raise [Invalid] with the pointer of the question at fault
      def check(questions)
        questions.each_with_index do |one, i|
          fault(i, "Say what you ask.") if one["text"].to_s.strip.empty?
          next if one["kind"] != "choice" || (one["choices"] || []).count { |choice| !choice.to_s.strip.empty? } > 1

          fault(i, "Give at least two choices.")
        end
      end

      # @param answers [Array<String, true, false, nil>] in the order of the questions
      # @return [Array<Hash{String => Object}>] question and answer, those that were left out not among them
      # @raise [Invalid] with the pointer of the answer at fault
      def read(questions, answers)
        questions.each_with_index.filter_map do |one, i|
          answer = (one["kind"] == "tick") ? answers[i] == true : answers[i].to_s.strip
          refuse(one, answer, i)
          {"question" => one["text"], "answer" => answer} unless [false, ""].include?(answer)
        end
      end

      def refuse(question, answer, index)
        pointer = "/answers/#{index}"
        if question["required"] && [false, ""].include?(answer)
          raise Invalid.new("Please answer this.", pointer: pointer, code: "missing")
        end
        if question["kind"] == "choice" && answer != "" && !question["choices"].include?(answer)
          raise Invalid.new("Choose one of these.", pointer: pointer)
        end
        most = LENGTHS[question["kind"]]
        if most && answer.length > most
          raise Invalid.new("This is too long: #{most} characters at most.",
            pointer: pointer)
        end
      end

      def fault(index, words) = raise(Invalid.new(words, pointer: "/questions/#{index}"))
      private_class_method :refuse, :fault
    end
  end
end
